/* What a teacher is about to set. Aims and exercises name charts and lines by their place among those chosen, from 1. */
import type { AimBody, AssignedExercise, Catalogue, LessonBody } from '../../../api/client'

export type AimKind = Catalogue['aims'][number]

export interface Draft {
  title: string
  words: string
  charts: number[]
  licks: number[]
  lines: number[]
  exercises: AssignedExercise[]
  aims: AimBody[]
}

export const empty = (): Draft => ({ title: '', words: '', charts: [], licks: [], lines: [], exercises: [], aims: [] })

/** Kinds of aims that there is something for. */
export const possible = (d: Draft, kinds: AimKind[]) => kinds.filter((k) => !k.of || d[`${k.of}s`].length > 0)

/** An aim of another kind begins as usual, with what both have, in a key. */
export const turned = (aim: AimBody, kind: AimKind, key = 'C'): AimBody => ({
  ...kind.usual,
  ...(kind.of && { [kind.of]: 1 }),
  ...(kind.asks.includes('key') && { key: key.replace(/m$/, '') }),
  ...(aim.tempo && kind.asks.includes('tempo') && { tempo: aim.tempo }),
})

/** A thing is no longer chosen: what spoke of it goes too, and later ones are counted anew. */
export function without(d: Draft, list: 'charts' | 'lines' | 'exercises', number: number): Draft {
  const one = list.slice(0, -1) as 'chart' | 'line' | 'exercise'
  const fewer = (n: number | undefined) => (n !== undefined && n > number ? n - 1 : n)
  const aims = d.aims.filter((a) => a[one] !== number).map((a) => ({ ...a, [one]: fewer(a[one]) }))
  const left = { ...d, [list]: d[list].filter((_, i) => i !== number - 1), aims }
  if (list !== 'charts') return left
  const gone = d.exercises.flatMap((e, i) => (e.chart === number ? [i + 1] : [])).toReversed()
  const rest = gone.reduce((now, n) => without(now, 'exercises', n), left)
  return { ...rest, exercises: rest.exercises.map((e) => ({ ...e, chart: fewer(e.chart)! })) }
}

/** As it is sent: what is empty is not there. */
export const said = (d: Draft): LessonBody => ({ ...d, words: d.words.trim() || undefined })
