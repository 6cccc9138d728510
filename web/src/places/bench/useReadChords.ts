/* The chords of the chart in hand as they are read: behind a capo, or for a transposing instrument. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api } from '../../api/client'
import { useReading } from '../../shell/useReading'
import type { useBench } from './useBench'

interface At {
  bar: number
  change: number
}

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
  const sheet = computed(() => (read.value ? leaf.data.value?.sheet : undefined))
  const chordOf = (step: At | undefined) =>
    step && sheet.value?.chords[sheet.value.bars[step.bar]?.changes[step.change]?.chord ?? -1]
  /** A chord of a bar as it is read; as it sounds until that is known. */
  const symbolOf = (step: (At & { chord: number }) | undefined) =>
    step ? (chordOf(step)?.symbol ?? bench.data.value?.chords[step.chord]?.symbol ?? '') : ''
  /** A tone of a chord as it is read. */
  const noteOf = (step: At | undefined, target: { degree: string; note: string }) =>
    chordOf(step)?.tones.find((t) => t.degree === target.degree)?.note ?? target.note
  const pickup = computed(() => (sheet.value ?? bench.data.value)?.pickup)
  const key = computed(() => (read.value ? leaf.data.value?.key : undefined))
  return { readings, reading, about, symbolOf, noteOf, pickup, key }
}
