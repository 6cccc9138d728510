/* What the core has answered of a line: the line itself, and its notes by their numbers. */
import type { LineBody, LineNote, Score, Study, Written } from '../api/client'

/** What a player keeps of a note; the rest is what the core knows of it. */
export function kept(n: Written): LineNote {
  const { midi, degree, before, signs, does, ...note } = n
  void [midi, degree, before, signs, does]
  return note
}

export const lineOf = (s: Study): LineBody => ({ ...s.line, notes: s.score.notes.map(kept) })

const indexes = new WeakMap<Score, Map<number, Written>>()
/** The notes of a score by their numbers. */
export function notesOf(score: Score): Map<number, Written> {
  let index = indexes.get(score)
  if (!index) indexes.set(score, (index = new Map(score.notes.map((n) => [n.id, n]))))
  return index
}
