/* What the transport can be set to. */
import type { Metre } from '../music/metre'

/** How players call a swing, by where the second eighth falls in its beat. */
const swings = [
  [0.52, 'straight'],
  [0.57, 'hardly swung'],
  [0.62, 'lightly swung'],
  [0.65, 'almost triplets'],
  [0.69, 'triplets'],
  [0.73, 'hard'],
  [1, 'almost dotted'],
] as const
export const swingName = (swing: number): string => swings.find(([most]) => swing <= most)![1]

/** A loop in beats from the top of the form: from the first to before the last. */
export interface LoopBeats {
  from: number
  to: number
}

/** Clean passes in a row that lead a ladder a step up, where it goes by how it goes; one that was not leads a step down. So it
 * comes to rest where four of five passes are clean. */
export const cleanInRow = 3

export interface Ladder {
  goal: number
  step: number
  passes: number
}

/** A loop within the form, at least a beat long. */
export function beatsOf(l: LoopBeats, form: number): LoopBeats {
  const from = Math.max(0, Math.min(l.from, form - 1))
  return { from, to: Math.max(from + 1, Math.min(l.to, form)) }
}

/** Writes a loop as a player says it: bars 5-8, or bar.beat to bar.beat, both included. */
export function writeLoop(l: LoopBeats, metre: Metre): string {
  const a = metre.at(l.from)
  const b = metre.at(l.to - 1)
  if (!a.beat && b.beat + 1 === metre.beatsOf(b.bar)) return `${a.bar + 1}-${b.bar + 1}`
  return `${a.bar + 1}.${a.beat + 1}-${b.bar + 1}.${b.beat + 1}`
}

/** Reads a loop; what cannot be played is set to the nearest that can, and said. */
export function readLoop(text: string, metre: Metre): { loop?: LoopBeats; said?: string } {
  const m = /^(\d+)(?:\.(\d+))?(?:-(\d+)(?:\.(\d+))?)?$/.exec(text.trim())
  if (!m)
    return { said: `“${text}” is no loop; write bars, such as 5-8, or bar.beat, such as 4.3-5.2. Nothing is looped.` }
  const clamp = (n: number, most: number) => Math.max(1, Math.min(n, most))
  const turned = m[3] && Number(m[1]) > Number(m[3]) // bars 8-5 are bars 5-8
  const [a, aBeat, b, bBeat] = turned ? [m[3], m[4], m[1], m[2]] : [m[1], m[2], m[3] ?? m[1], m[4]]
  const beat = (bar: string | undefined, of: string | undefined, usual: 'first' | 'last') => {
    const at = clamp(Number(bar), metre.bars) - 1
    const most = metre.beatsOf(at)
    return metre.startOf(at) + clamp(Number(of ?? (usual === 'first' ? 1 : most)), most) - 1
  }
  const from = beat(a, aBeat, 'first')
  const to = beat(b, bBeat, 'last') + 1
  const loop = beatsOf(from < to ? { from, to } : { from: to - 1, to: from + 1 }, metre.length)
  const written = writeLoop(loop, metre)
  const asked = m[3] ? text.trim() : `${text.trim()}-${text.trim()}`
  return {
    loop,
    said: written === asked ? undefined : `A loop of ${text} cannot be played here; it is set to ${written}.`,
  }
}
