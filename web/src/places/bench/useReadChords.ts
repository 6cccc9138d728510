/* The chords of the chart in hand as they are read: behind a capo, or for a transposing instrument. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api } from '../../api/client'
import { useReading } from '../../shell/useReading'
import type { useBench } from './useBench'

export function useReadChords(bench: ReturnType<typeof useBench>) {
  const { readings, reading, about } = useReading(() => bench.data.value?.chart.reading)
  const read = computed(() => reading.value !== 'concert')
  const leaf = useQuery({
    queryKey: ['chart', 'read', bench.id, reading, computed(() => bench.data.value?.chart.version)],
    queryFn: () =>
      answer(
        api.GET('/api/charts/{id}/leaf', {
          params: { path: { id: bench.id.value }, query: { reading: reading.value, of: 'solo' } },
        }),
      ),
    enabled: computed(() => read.value && !!bench.data.value),
  })
  /** A chord of a bar as it is read; as it sounds until that is known. */
  function symbolOf(step: { bar: number; change: number; chord: number } | undefined): string {
    if (!step) return ''
    const sheet = read.value ? leaf.data.value?.sheet : undefined
    const own = sheet?.chords[sheet.bars[step.bar]?.changes[step.change]?.chord ?? -1]?.symbol
    return own ?? bench.data.value?.chords[step.chord]?.symbol ?? ''
  }
  const key = computed(() => (read.value ? leaf.data.value?.key : undefined))
  return { readings, reading, about, symbolOf, key }
}
