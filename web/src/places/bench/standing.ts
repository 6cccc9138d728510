/* Where a player stands on the Bench: in which step of the form, in which position, and what comes next. */
import type { Step } from '../../sheet/step'
import type { ChartMap, Target } from '../../api/client'

type Bars = { changes: { chord: number; beat: number; length: number }[] }[]

export const stepsOf = (bars: Bars): Step[] =>
  bars.flatMap((b, bar) => b.changes.map(({ chord, beat, length }, change) => ({ bar, change, chord, beat, length })))

/** The step at a beat of a bar, both from 1; where none begins there the bar's first, and where there is no such bar the form's. */
export function stepAt(steps: Step[], bar: number, beat: number) {
  const exact = steps.findIndex((s) => s.bar === bar - 1 && s.beat === beat)
  return exact >= 0 ? exact : Math.max(0, steps.findIndex((s) => s.bar === bar - 1)) // prettier-ignore
}

/** How many changes are told ahead. */
const ahead = 3

/** The next steps at which the chord changes, each with how many beats away it is; the form comes round. */
export function comingFrom(steps: Step[], at: number) {
  const out: (Step & { beats: number })[] = []
  let beats = 0
  for (let i = 0; i < steps.length && out.length < ahead; i++) {
    const here = steps[(at + i) % steps.length]!
    const there = steps[(at + i + 1) % steps.length]!
    beats += here.length
    if (there.chord !== here.chord) out.push({ ...there, beats })
  }
  return out
}

/** Which step of which chorus is meant by one that may lie before the first or behind the last. */
export function round(i: number, steps: number, chorus: number, choruses: number) {
  const step = ((i % steps) + steps) % steps
  return { step, chorus: (((chorus + Math.floor(i / steps)) % choruses) + choruses) % choruses }
}

type Position = { low: number; high: number; number: number; shape?: string; octave?: boolean; nut?: boolean }

/** The position that is meant: the player's own, the one with these frets, the nearest to them, or the key's usual one. */
export function positionOf(positions: Position[], asked: { low: number; high: number } | undefined, own: boolean) {
  const first = (is: (p: Position) => boolean) => Math.max(0, positions.findIndex(is))
  if (own) return first((p) => p.number === 0)
  if (!asked) return first((p) => p.shape === 'E')
  const exact = positions.findIndex((p) => p.low === asked.low && p.high === asked.high)
  if (exact >= 0) return exact
  return positions.reduce((best, p, i) => (Math.abs(p.low - asked.low) < Math.abs(positions[best]!.low - asked.low) ? i : best), 0) // prettier-ignore
}

/** The position that a number goes to: its usual place, and again from there the same one in another octave. now is where one stands, −1 in a region of one's own. */
export function numbered(positions: Position[], number: number, now: number) {
  const same = positions.flatMap((p, i) => (p.number === number ? [{ p, i }] : []))
  const here = same.findIndex(({ i }) => i === now)
  if (here >= 0) return same[(here + 1) % same.length]!.i
  return (same.find(({ p }) => !p.octave) ?? same[0])?.i
}

/** The targets of a chorus of the thread, by step. */
export function targetsOf(steps: number, thread: { targets: Target[] } | undefined, chorus: number) {
  const out: (Target | undefined)[] = Array.from({ length: steps }, () => undefined)
  for (const t of thread?.targets ?? []) if ((t.chorus ?? 0) === chorus) out[t.step] = t
  return out
}

/** The target of a step that comes next; past the end of the form it is the next chorus's. */
export function targetAt(
  thread: { targets: Target[] } | undefined,
  next: number,
  at: number,
  chorus: number,
  choruses: number,
) {
  // prettier-ignore
  const of = next <= at ? (chorus + 1) % choruses : chorus
  return thread?.targets.find((t) => t.step === next && (t.chorus ?? 0) === of)
}

/** The moves from one chord to another that can be played in a position: the pair's, with where each lies there. */
export function movesOf(
  map: Pick<ChartMap, 'changes'> | undefined,
  crossings: ChartMap['byPosition'][number]['crossings'] | undefined,
  pair: number,
) {
  // prettier-ignore
  return (map?.changes[pair]?.steps ?? [])
    .map((s, k) => ({ ...s, places: crossings?.[pair]?.[k] ?? [] }))
    .filter((m) => m.places.length)
}

/** What a set of names in the address is when one of them is turned on or off. */
export function toggled(text: string, name: string) {
  const now = new Set(text.split(',').filter(Boolean))
  if (!now.delete(name)) now.add(name)
  return [...now].join(',') || undefined
}

/** Which beat a band that plays is sent to, to get from a step to another: with a loop, the next stretch or the one before. */
export function aimed(by: number, loop: { from: number; to: number } | undefined, formBeats: number, beat: number) {
  if (!loop || Math.abs(by) !== 1) return beat
  return by > 0 ? loop.to % formBeats : Math.max(0, 2 * loop.from - loop.to)
}
