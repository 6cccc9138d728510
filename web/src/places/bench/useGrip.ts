/* The chord in hand held at once: its shape here, a grip, strummed; and where else its run has the same fingering. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api } from '../../api/client'
import { useBand } from '../../band/useBand'
import { useAsked } from './useAsked'
import type { Bench } from './useBench'

const most = 7 // frets between which a hand is looked for

export function useGrip(bench: Bench) {
  const { data, step, chord, position } = bench
  const neck = useAsked(bench)
  const band = useBand()
  const asked = computed(() => {
    const n = neck.value
    if (!n || !chord.value || chord.value.none || n.high - n.low > most) return undefined
    return { ...n, chord: chord.value.symbol }
  })
  const found = useQuery({
    queryKey: ['grip', asked],
    queryFn: () => answer(api.GET('/api/grips', { params: { query: asked.value! } })),
    enabled: computed(() => !!asked.value),
    staleTime: Infinity,
  })
  const grip = computed(() => (asked.value && found.data.value?.notes.length ? found.data.value : undefined))
  /** One figure a string, the lowest first: "8 10 8 9 8 8". */
  const frets = computed(() => {
    const count = data.value?.instrument.open.length ?? 0
    return Array.from({ length: count }, (_, i) => count - i)
      .map((s) => grip.value?.notes.find((n) => n.string === s)?.fret ?? '×')
      .join(' ')
  })
  const shape = computed(() => data.value?.byPosition[position.value]?.shapes[step.value?.chord ?? 0])
  /** Runs with the same fingering, of whichever chord, in whichever position. */
  const elsewhere = computed(() => {
    const d = data.value
    const mine = step.value?.chord ?? 0
    const kind = d?.byPosition[position.value]?.alike[mine]
    if (!d || kind === undefined || !d.byPosition[position.value]!.runs[mine]!.notes.length) return []
    return d.byPosition.flatMap((p, at) =>
      p.alike.flatMap((k, c) =>
        k === kind && (at !== position.value || c !== mine)
          ? [{ at, chord: d.chords[c]!.symbol, low: d.positions[at]!.low, high: d.positions[at]!.high }]
          : [],
      ),
    )
  })
  async function strum() {
    await band.ready()
    grip.value?.notes.forEach((n, i) => setTimeout(() => setTimeout(band.hold(n.midi), 1500), 28 * i))
  }
  return { grip, frets, shape, elsewhere, strum }
}
