/* How often a drill of bends or trills is played before a hand has had enough. */
import type { Level } from '../../document/level'

/** Passes that are enough of these notes in one of a line's forms; undefined where they do not strain. */
export function enough(
  strain: { notes: number[]; enough: number } | undefined,
  notes: { id?: number; bend?: number; trill?: number }[],
  level: Level,
): number | undefined {
  if (!strain) return undefined
  const those = new Set(strain.notes)
  // Plain leaves trills out, and without bends nothing is bent.
  const left = notes.filter((n) => those.has(n.id!) && (n.bend ? level !== 'unbent' : level !== 'plain'))
  return left.length ? Math.max(1, Math.floor(strain.enough / left.length)) : undefined
}
