/* The chord in hand held at once: its shape here, a grip, strummed; and where else its run has the same fingering. */
import { computed } from 'vue'
import { useBand } from '../../band/useBand'
import type { Bench } from './useBench'

export function useGrip(bench: Bench) {
  const { data, step, here, position } = bench
  const band = useBand()
  const grip = computed(() => {
    const held = here.value?.grips[step.value?.chord ?? 0]
    return held?.notes.length ? held : undefined
  })
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
    const of = (at: number, c: number) => {
      const { low, high } = d.positions[at]!
      return { at, chord: d.chords[c]!.symbol, low, high }
    }
    const told = ({ chord, low, high }: ReturnType<typeof of>) => `${chord} ${low} ${high}`
    const seen = new Set([told(of(position.value, mine))]) // what is in hand is not elsewhere, whatever it is called
    return d.byPosition
      .flatMap((p, at) => p.alike.flatMap((k, c) => (k === kind ? [of(at, c)] : [])))
      .filter((e) => !seen.has(told(e)) && seen.add(told(e)))
  })
  async function strum() {
    await band.ready()
    grip.value?.notes.forEach((n, i) => setTimeout(() => setTimeout(band.hold(n.midi), 1500), 28 * i))
  }
  return { grip, frets, shape, elsewhere, strum }
}
