/* The stretch of a recording that is in hand, as plain functions: taken, moved, made longer, with its edges on beats. */

export interface Stretch {
  from: number
  to: number
}
export interface Anchor {
  beat: number
  at: number
}

/** Which beat a second is, with its part, as the core reckons it (core/record/grid.go): even between two anchors, and beyond. */
export function beatAt(anchors: readonly Anchor[], at: number): number | undefined {
  const piece = pieceOf(anchors, (a) => a.at > at)
  if (!piece) return undefined
  const [a, b] = piece
  return a.beat + ((at - a.at) * (b.beat - a.beat)) / (b.at - a.at)
}
/** When a beat falls. */
export function secondOf(anchors: readonly Anchor[], beat: number): number | undefined {
  const piece = pieceOf(anchors, (a) => a.beat > beat)
  if (!piece) return undefined
  const [a, b] = piece
  return a.at + ((beat - a.beat) * (b.at - a.at)) / (b.beat - a.beat)
}
function pieceOf(anchors: readonly Anchor[], after: (a: Anchor) => boolean): [Anchor, Anchor] | undefined {
  if (anchors.length < 2) return undefined
  const found = anchors.findIndex(after)
  const i = Math.min(Math.max(found < 0 ? anchors.length - 1 : found, 1), anchors.length - 1)
  return [anchors[i - 1]!, anchors[i]!]
}

/** The same beats, so many seconds later. */
export const later = (anchors: readonly Anchor[], by: number): Anchor[] => anchors.map((a) => ({ ...a, at: a.at + by }))

/** The same beats, as they fall within what begins at a second: at least two, where any are known. */
export function within(anchors: readonly Anchor[], from: number): Anchor[] {
  if (!from || anchors.length < 2) return [...anchors]
  const some = anchors.filter((a) => a.at >= from)
  if (some.length < 2) {
    const first = Math.ceil(beatAt(anchors, from)! - 1e-9)
    some.splice(0, some.length, ...[first, first + 4].map((beat) => ({ beat, at: secondOf(anchors, beat)! })))
  }
  return later(some, -from).map((a) => ({ ...a, at: Math.max(0, a.at) }))
}

/** Seconds that a stretch has at least. */
const least = 0.2

/** A moment on the nearest beat, where one is known within reach. */
export function snapped(anchors: readonly Anchor[], at: number, reach = Infinity): number {
  const beat = beatAt(anchors, at)
  if (beat === undefined) return at
  const to = secondOf(anchors, Math.round(beat))!
  return Math.abs(to - at) <= reach ? to : at
}

/** A stretch between two moments in either order, within the recording. */
export function between(a: number, b: number, seconds: number): Stretch {
  const [from, to] = a < b ? [a, b] : [b, a]
  const begin = Math.max(0, Math.min(from, seconds - least))
  return { from: begin, to: Math.min(seconds, Math.max(to, begin + least)) }
}

/** So many bars from the bar that a moment lies in. */
export function barsFrom(anchors: readonly Anchor[], perBar: number, at: number, bars: number): Stretch | undefined {
  const beat = beatAt(anchors, at)
  if (beat === undefined) return undefined
  const first = Math.floor((beat + 0.01) / perBar) * perBar
  return { from: Math.max(0, secondOf(anchors, first)!), to: secondOf(anchors, first + bars * perBar)! }
}

/** The next stretch of the same length, or the one before. */
export function moved(anchors: readonly Anchor[], s: Stretch, by: 1 | -1, seconds: number): Stretch {
  const [a, b] = [beatAt(anchors, s.from), beatAt(anchors, s.to)]
  const length = s.to - s.from
  let next = { from: s.from + by * length, to: s.to + by * length }
  if (a !== undefined && b !== undefined)
    next = { from: secondOf(anchors, a + by * (b - a))!, to: secondOf(anchors, b + by * (b - a))! }
  if (next.from < -0.01 || next.from >= seconds - least) return s
  return between(next.from, next.to, seconds)
}

/** Longer or shorter by a beat at its end, or by a quarter of a second where no beats are known. */
export function longer(anchors: readonly Anchor[], s: Stretch, by: 1 | -1, seconds: number): Stretch {
  const beat = beatAt(anchors, s.to)
  const to = beat === undefined ? s.to + by * 0.25 : secondOf(anchors, Math.round(beat) + by)!
  return to - s.from < least ? s : between(s.from, to, seconds)
}

/** A moment as it is told: 2:10.4. */
export function clock(seconds: number): string {
  const tenths = Math.round(seconds * 10)
  const [m, s] = [Math.floor(tenths / 600), (tenths % 600) / 10]
  return `${m}:${s.toFixed(1).padStart(4, '0')}`
}
/** How long it lasts: 4:12. */
export const lasting = (seconds: number) => {
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
