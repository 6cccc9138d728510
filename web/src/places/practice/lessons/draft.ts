/* What a teacher is about to set. Aims and exercises name charts and lines by their place among those chosen, from 1. */
import type { AimBody, AssignedExercise, LessonBody } from '../../../api/client'

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

/** What each kind of aim is called, and how it begins. */
export const kinds: { id: AimBody['kind']; name: string; usual: Partial<AimBody> }[] = [
  { id: 'changes', name: 'changes met', usual: { chart: 1, mode: 'land', percent: 80, times: 2 } },
  { id: 'line', name: 'a line', usual: { line: 1, percent: 90 } },
  { id: 'exercise', name: 'an exercise', usual: { exercise: 1, percent: 90 } },
  { id: 'calls', name: 'calls', usual: { key: 'C', degree: 'third', times: 8 } },
  { id: 'minutes', name: 'minutes', usual: { times: 60 } },
]

/** Kinds that there is something for. */
export const possible = (d: Draft) =>
  kinds.filter(
    (k) =>
      (k.id !== 'changes' || d.charts.length) &&
      (k.id !== 'line' || d.lines.length) &&
      (k.id !== 'exercise' || d.exercises.length),
  )

/** An aim of another kind begins as usual, with what both have. */
export function turned(aim: AimBody, kind: AimBody['kind']): AimBody {
  const { usual } = kinds.find((k) => k.id === kind)!
  return { kind, ...usual, ...(aim.tempo && kind !== 'minutes' && kind !== 'calls' ? { tempo: aim.tempo } : {}) }
}

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
