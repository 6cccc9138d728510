/* The notes of a recording as plain functions: heard anew, settled, moved, taken away. */
import type { NoteByEar } from '../api/client'
import type { Stretch } from './inHand'

/** From here on a guess is sure enough to be settled with all others that are. */
export const sureFrom = 0.8

export const begins = (n: NoteByEar, s: Stretch) => n.at >= s.from - 0.06 && n.at < s.to - 0.02
export const inStretch = (notes: readonly NoteByEar[], s: Stretch) => notes.filter((n) => begins(n, s))

const inTime = (notes: NoteByEar[]) => notes.toSorted((a, b) => a.at - b.at || a.pitch - b.pitch)

/** What was heard in a stretch, in place of the guesses that stood there; what is settled stays. */
export function heardAnew(notes: readonly NoteByEar[], s: Stretch, heard: readonly NoteByEar[]): NoteByEar[] {
  const stays = notes.filter((n) => n.settled || !begins(n, s))
  let last = Math.max(0, ...notes.map((n) => n.id))
  return inTime([...stays, ...heard.filter((n) => begins(n, s)).map((n) => ({ ...n, id: ++last }))])
}

export const changed = (notes: readonly NoteByEar[], id: number, change: Partial<NoteByEar>): NoteByEar[] =>
  inTime(notes.map((n) => (n.id === id ? { ...n, ...change } : n)))

/** A note that its player corrects is settled by that. */
export const corrected = (notes: readonly NoteByEar[], id: number, change: Partial<NoteByEar>) =>
  changed(notes, id, { ...change, settled: true, sure: 1 })

export const without = (notes: readonly NoteByEar[], id: number) => notes.filter((n) => n.id !== id)

/** All that are sure are settled. */
export const settleSure = (notes: readonly NoteByEar[], s: Stretch): NoteByEar[] =>
  notes.map((n) => (!n.settled && n.sure >= sureFrom && begins(n, s) ? { ...n, settled: true } : n))

/** A note that its player writes. */
export function written(notes: readonly NoteByEar[], at: number, length: number, pitch: number) {
  const id = Math.max(0, ...notes.map((n) => n.id)) + 1
  return { id, notes: inTime([...notes, { id, at, length, pitch, sure: 1, settled: true }]) }
}

/** The note after one, or before; where none is in hand the first, or the last. */
export function neighbour(notes: readonly NoteByEar[], id: number | undefined, by: 1 | -1): number | undefined {
  const at = notes.findIndex((n) => n.id === id)
  return (at < 0 ? notes.at(by > 0 ? 0 : -1) : notes[at + by])?.id
}

/** How sure a guess is, in words. */
export const sureness = (n: NoteByEar) =>
  n.settled ? 'settled' : n.sure >= sureFrom ? 'sure' : n.sure >= 0.6 ? 'fairly sure' : 'not sure'
