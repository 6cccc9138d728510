import { computed } from 'vue'
import type { Note, Target } from '../../api/client'
import { spoken } from '../../music/text'
import type { Spot } from '../../neck/NeckDrawing.vue'
import { same } from './moves'
import { holds, told } from '../../neck/region'
import type { Bench } from './useBench'
import type { Other } from './useOther'

/** What the neck shows of the bar in hand. */
export function useNeckView(bench: Bench, other: Pick<Other, 'chosen' | 'notes' | 'scale'>) {
  const { data, step, chord, coming, window, run, here, at, targets, nextTarget } = bench
  /** How many half steps the nearest tone of the next chord lies away, for each tone of this one. */
  const steps = computed(() => {
    const out = new Map<string, number>()
    for (const m of bench.moves.value) {
      const before = out.get(m.from.degree)
      if (before === undefined || Math.abs(m.halfSteps) < Math.abs(before)) out.set(m.from.degree, m.halfSteps)
    }
    return out
  })
  const stepOf = (degree: string) => {
    const n = steps.value.get(degree)
    return n === undefined ? '' : n === 0 ? '=' : `${n > 0 ? '+' : '−'}${Math.abs(n)}`
  }
  const labelOf = (n: { degree: string; note: string; fret: number; finger?: number }) =>
    ({
      degree: n.degree,
      note: n.note,
      finger: n.finger ? String(n.finger) : n.fret ? '' : 'o',
      fret: String(n.fret),
      steps: stepOf(n.degree),
    })[bench.labels.value]
  /** The next chord's own tones are not on the way to it. */
  const labelNext = (n: Parameters<typeof labelOf>[0]) => (bench.labels.value === 'steps' ? n.degree : labelOf(n))
  /** The notes of a run, and the thread's target where it lies in the other place of its pitch. */
  const withTarget = (notes: Note[], t?: Target) =>
    !t || notes.some((n) => same(n, t)) ? notes : [...notes, { ...t, finger: undefined }]
  const tones = computed(() => other.notes.value ?? withTarget(run.value?.notes ?? [], targets.value[at.value]))
  const shown = computed(() => {
    const over = spoken(chord.value?.symbol ?? '')
    return other.chosen.value ? `${spoken(other.chosen.value.chord)} over ${over}` : over
  })
  const spots = computed<Spot[]>(() =>
    tones.value.map((n) => ({
      ...n,
      label: labelOf(n),
      title: `${spoken(n.degree)} of ${spoken(chord.value?.symbol ?? '')}: ${spoken(n.note)}, string ${n.string} fret ${n.fret}`,
    })),
  )
  const arrivals = computed(() =>
    coming.value[0] ? withTarget(here.value?.runs[coming.value[0].chord]?.notes ?? [], nextTarget.value) : [],
  )
  const ghosts = computed(() => {
    const w = window.value
    return (data.value?.neck[step.value?.chord ?? 0] ?? []).filter((n) => w && !holds(w, n))
  })
  const shape = computed(() => {
    if (other.scale.value) return { places: other.scale.value, unisons: [] }
    const s = bench.shape.value
    return s && { places: s.places ?? [], unisons: s.unisons ?? [] }
  })
  const blend = computed(() => data.value?.blends[step.value?.chord ?? 0])
  const describe = computed(
    () =>
      `neck, frets ${window.value ? told(window.value) : ''}, ${shown.value}: ` +
      spots.value.map((s) => s.title).join('; '),
  )

  return { labelOf, labelNext, tones, spots, arrivals, ghosts, shape, blend, describe }
}
