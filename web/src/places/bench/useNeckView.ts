import { computed } from 'vue'
import type { Note, Target } from '../../api/client'
import { spoken } from '../../music/text'
import type { Spot } from '../../neck/NeckDrawing.vue'
import { same } from './moves'
import { holds, told } from '../../neck/region'
import type { Bench } from './useBench'

/** What the neck shows of the bar in hand. */
export function useNeckView(bench: Bench) {
  const { data, step, chord, coming, window, run, here, at, targets, nextTarget } = bench
  const labelOf = (n: { degree: string; note: string; fret: number; finger?: number }) =>
    ({ degree: n.degree, note: n.note, finger: n.finger ? String(n.finger) : n.fret ? '' : 'o', fret: String(n.fret) })[
      bench.labels.value
    ]
  /** The notes of a run, and the thread's target where it lies in the other place of its pitch. */
  const withTarget = (notes: Note[], t?: Target) =>
    !t || notes.some((n) => same(n, t)) ? notes : [...notes, { ...t, finger: undefined }]
  const tones = computed(() => withTarget(run.value?.notes ?? [], targets.value[at.value]))
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
    const s = bench.shape.value
    return s && { places: s.places ?? [], unisons: s.unisons ?? [] }
  })
  const blend = computed(() => data.value?.blends[step.value?.chord ?? 0])
  const describe = computed(
    () =>
      `neck, frets ${window.value ? told(window.value) : ''}, ${spoken(chord.value?.symbol ?? '')}: ` +
      spots.value.map((s) => s.title).join('; '),
  )

  return { labelOf, tones, spots, arrivals, ghosts, shape, blend, describe }
}
