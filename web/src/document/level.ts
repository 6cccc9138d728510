/* What is read off a line as it is written: its two levels, ornamented and plain, and the chord at a tick. */
import { quarter } from '../api/facts'
import type { Catalogue, LineNote, Score } from '../api/client'

/** A note has something that the plain level leaves out. */
export const adorned = (n: LineNote, ways: Catalogue['ways']): boolean =>
  ways.some((w) => w.adorns && !!n[w.field as keyof LineNote])

/** In which forms a line is seen and heard; without bends it is heard alone. */
export const levels = [
  { id: 'ornamented', name: 'ornamented' },
  { id: 'plain', name: 'plain' },
  { id: 'unbent', name: 'without bends' },
] as const
export type Level = (typeof levels)[number]['id']

/** A line as it is written, without what adorns it. */
export const plainScore = (score: Score): Score => ({
  ...score,
  notes: score.notes.map((n) => {
    const signs = n.signs?.filter((s) => s.kind !== 'adorned')
    return n.trill || signs?.length !== n.signs?.length
      ? { ...n, trill: undefined, signs: signs?.length ? signs : undefined }
      : n
  }),
})

/** The chord that sounds at a tick; in a pickup the first. */
export function chordAt(score: Score, tick: number): string | undefined {
  const all = score.measures.flatMap((m) => m.chords.map((c) => ({ at: m.start + c.beat * quarter, symbol: c.symbol })))
  return (all.findLast((c) => c.at <= tick) ?? all[0])?.symbol
}
