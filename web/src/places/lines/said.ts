/* A note in words, as one musician tells it to another: of the same parts as are printed. */
import type { LineNote, Score, Study } from '../../api/client'
import { quarter } from '../../api/facts'
import { chordAt } from '../../document/level'
import { played, told, type Way } from '../../document/ways'
import { barsOf, metreOf } from '../../music/metre'
import { spoken } from '../../music/text'

/** The parts of a beat that players name, in twelfths of it. */
const parts: Record<number, string> = { 0: '', 3: ' e', 4: ' second third', 6: ' and', 8: ' last third', 9: ' a' }

/** Where a tick lies: bar 5, beat 2 and. */
export function placeSaid(score: Score | undefined, tick: number): string {
  const beat = Math.floor(tick / quarter)
  const part = parts[((((tick % quarter) + quarter) % quarter) * 12) / quarter] ?? ' +'
  if (tick < 0 || !score) return 'in the pickup'
  const at = metreOf(barsOf(score)).at(beat)
  return `bar ${at.bar + 1}, beat ${at.beat + 1}${part}`
}

/** A note's name without its octave. */
export const nameOf = (written: { note: string }) => written.note.replace(/-?\d+$/, '')

/** A whole note: bar 5, beat 2 and: E flat, flat 7 of F7, string 3 fret 8, bend a whole step. */
export function noteSaid(
  note: LineNote,
  written: Score['notes'][number] | undefined,
  study: Pick<Study, 'score'>,
  ways: Way[],
): string {
  const chord = chordAt(study.score, note.start)
  const degree = written?.does?.degree ?? written?.degree
  return [
    `${placeSaid(study.score, note.start)}: ${written ? spoken(nameOf(written)) : 'a note'}`,
    degree && `${spoken(degree)}${chord ? ` of ${spoken(chord)}` : ''}`,
    note.dead ? 'dead' : `string ${note.string} ${note.fret ? `fret ${note.fret}` : 'open'}`,
    ...ways.filter((w) => played(w, note) && !w.on).map((w) => told(w, note)),
  ]
    .filter(Boolean)
    .join(', ')
}
