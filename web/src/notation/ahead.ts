/* What a line of music shows before it is engraved anew: notes that are there no more, and those that are new. */
import type { LineNote } from '../api/client'
import { placeOf } from './along'
import type { Box, Spot } from './engrave'

interface Row {
  spots: Pick<Spot, 'x' | 'note'>[]
  boxes: Box[]
}

/** Which line of music holds a note, by its number. */
export const holders = <R extends Row>(rows: readonly R[]) =>
  new Map(rows.flatMap((r) => r.spots.map((s) => [s.note.id, r] as const)))

/** Of each line of music the notes that are gone. */
export function goneOf<R extends Row>(holder: Map<number, R>, gone: Iterable<number>) {
  const of = new Map<R, Set<number>>()
  for (const id of gone) {
    const row = holder.get(id)
    if (row) of.set(row, (of.get(row) ?? new Set()).add(id))
  }
  return of
}

/** Of each line of music the notes that are new, where they will be. */
export function freshOf<R extends Row>(rows: readonly R[], fresh: readonly LineNote[]) {
  const of = new Map<R, { id: number; x: number; string: number; text: string }[]>()
  for (const n of fresh) {
    const at = placeOf(rows, n.start)
    if (!at) continue
    const shown = { id: n.id ?? 0, x: at.x, string: n.string || 1, text: n.dead ? '×' : String(n.fret) }
    of.set(at.row, [...(of.get(at.row) ?? []), shown])
  }
  return of
}
