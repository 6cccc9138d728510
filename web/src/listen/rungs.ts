/* A ladder of tempi that follows how it goes: a step up after some clean passes in a row, a step down after one that was not. */
import { maxTempo, minTempo } from '../api/facts'
import { cleanInRow } from '../band/settings'

export interface Rung {
  tempo: number
  /** clean passes in a row at this tempo */
  row: number
}

/** Beats a minute from rung to rung. */
const step = 5

/** How far above its own tempo a thing is climbed: quicker than that it is another piece, and a strain. */
export const ceiling = (tempo: number) => Math.min(maxTempo, step * Math.floor((1.5 * tempo) / step))

/** most is the tempo above which the ladder does not lead; who stands there already stays. */
export function climbed({ tempo, row }: Rung, clean: boolean, most = maxTempo): Rung {
  if (!clean) return { tempo: Math.max(minTempo, tempo - step), row: 0 }
  if (row + 1 < cleanInRow) return { tempo, row: row + 1 }
  return { tempo: Math.max(tempo, Math.min(most, tempo + step)), row: 0 }
}

/** A pass is clean when nearly all that counts in it was right. */
export const clean = (right: number, of: number) => of > 0 && right >= 0.95 * of

/** A note value, with the ticks from note to note. */
export interface Pace {
  id: string
  name: string
  step: number
}

/** Where a ladder goes on above its goal: the next finer note value, at a tempo at which the notes come a little slower
 * than they came. Nothing above the finest, or where the tempo would be too low to count. */
export function finer(paces: Pace[], now: string, goal: number): { pace: Pace; tempo: number } | undefined {
  const at = paces.findIndex((p) => p.id === now)
  const pace = at < 0 ? undefined : paces[at + 1]
  if (!pace) return undefined
  const tempo = step * Math.floor((0.9 * goal * pace.step) / paces[at]!.step / step)
  return tempo < minTempo ? undefined : { pace, tempo }
}

/** The note value that an exercise is written in: that of most of its notes. */
export function paceOf(paces: Pace[], starts: number[]): string | undefined {
  const gaps = new Map<number, number>()
  starts.slice(1).forEach((s, i) => gaps.set(s - starts[i]!, (gaps.get(s - starts[i]!) ?? 0) + 1))
  const [most] = [...gaps].toSorted((a, b) => b[1] - a[1])[0] ?? []
  return paces.find((p) => p.step === most)?.id
}
