/* The stretch over note rows, as plain geometry. */
import type { HeardStretch, NoteByEar } from '../../api/client'
import type { Stretch } from '../../recording/inHand'

export const room = { left: 46, right: 12, top: 44, foot: 24 }

/** The rows that are shown: those of the notes with some about them, or of the neck as it is played most. */
export function rowsOf(notes: readonly NoteByEar[], compass: readonly [number, number]): { low: number; high: number } {
  const [least, most] = [compass[0] + 1, compass[1]]
  if (!notes.length) return { low: least, high: Math.min(most, least + 40) }
  let low = Math.min(...notes.map((n) => n.pitch)) - 3
  let high = Math.max(...notes.map((n) => n.pitch + (n.bend ?? 0))) + 3
  const want = 22
  if (high - low < want) {
    const more = want - (high - low)
    low -= Math.floor(more / 2)
    high += Math.ceil(more / 2)
  }
  return { low: Math.max(least - 2, Math.floor(low)), high: Math.min(most, Math.ceil(high)) }
}

const names = ['C', '', 'D', '', 'E', 'F', '', 'G', '', 'A', '', 'B']
/** The names of the white keys' rows; the others have none. */
export const rowName = (midi: number) => names[((midi % 12) + 12) % 12]!

const spoken = ['C', 'D♭', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B']
export const pitchName = (midi: number) => spoken[((midi % 12) + 12) % 12]!

export interface Size {
  width: number
  height: number
}

export function geometry(s: Stretch, rows: { low: number; high: number }, size: Size) {
  const wide = size.width - room.left - room.right
  const tall = size.height - room.top - room.foot
  const row = tall / (rows.high - rows.low + 1)
  return {
    row,
    wide,
    tall,
    x: (at: number) => room.left + ((at - s.from) / (s.to - s.from)) * wide,
    y: (midi: number) => room.top + (rows.high - midi + 0.5) * row,
    at: (x: number) => s.from + ((x - room.left) / wide) * (s.to - s.from),
    pitch: (y: number) => Math.round(rows.high + 0.5 - (y - room.top) / row),
  }
}

/** A note's line: from where it is fretted up to where it rests, and on to its end. */
export function path(g: ReturnType<typeof geometry>, n: NoteByEar): string {
  const [a, b] = [g.x(n.at), Math.max(g.x(n.at) + 6, g.x(n.at + n.length) - 5)]
  if (!n.bend) return `M${a} ${g.y(n.pitch)} L${b} ${g.y(n.pitch)}`
  const [low, high] = [g.y(n.pitch), g.y(n.pitch + n.bend)]
  const up = Math.min(28, (b - a) / 2)
  return `M${a} ${low} C${a + up * 0.5} ${low} ${a + up * 0.5} ${high} ${a + up} ${high} L${b} ${high}`
}

/** The beats of the stretch, from the bars that the core tells. */
export function beatsOf(heard: HeardStretch | undefined, perBar: number): { at: number; beat: number }[] {
  return (heard?.bars ?? []).flatMap((b) =>
    Array.from({ length: perBar }, (_, i) => ({ at: b.at + (i * (b.to - b.at)) / perBar, beat: i })),
  )
}
