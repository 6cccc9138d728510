/* A line learned in parts: 1, 2, 1–2, 3, 1–3 and so on to the whole, each on a rung of its own. */
import { ceiling, climbed, type Rung } from '../../listen/rungs'

/** From which part to which, from 0, both included. */
export type Stretch = [number, number]

/** In which order so many parts are learned. */
export function course(parts: number): Stretch[] {
  const out: Stretch[] = parts ? [[0, 0]] : []
  for (let k = 1; k < parts; k++) out.push([k, k], [0, k])
  return out
}

/** How far one is: which of the course, and the rung of each stretch that was begun. */
export interface Learned {
  step: number
  rungs: Record<string, Rung>
}

export const keyOf = ([from, to]: Stretch) => `${from + 1}-${to + 1}`
export const nameOf = ([from, to]: Stretch) => (from === to ? `part ${from + 1}` : `parts ${from + 1} to ${to + 1}`)

/** The rung of a stretch: its own, or where it was never played that of the slower of those that it joins. */
export function rungOf(l: Learned, [from, to]: Stretch, tempo: number): Rung {
  const own = l.rungs[keyOf([from, to])]
  if (own) return own
  const before = [...(from < to ? [keyOf([from, to - 1]), keyOf([to, to])] : [])].flatMap(
    (k) => l.rungs[k]?.tempo ?? [],
  )
  return { tempo: before.length ? Math.min(...before) : tempo, row: 0 }
}

/** A pass of the stretch in hand of a line at a tempo is over: its rung follows, and after some clean ones in a row the next stretch comes. */
export function learned(l: Learned, of: Stretch[], clean: boolean, tempo: number): Learned {
  const now = of[l.step]
  if (!now) return l
  const before = rungOf(l, now, tempo)
  const next = climbed(before, clean, ceiling(tempo))
  const rungs = { ...l.rungs, [keyOf(now)]: next }
  return { step: next.tempo > before.tempo || (clean && next.row === 0) ? Math.min(of.length - 1, l.step + 1) : l.step, rungs } // prettier-ignore
}
