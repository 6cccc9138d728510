/* What a file did not say, and Undaris chose: told for a note, and taken as it is. */
import type { LineNote } from '../api/client'

const words = {
  placeGuessed: 'place',
  rhythmGuessed: 'onset',
  bendGuessed: 'bend',
  joinGuessed: 'way it is reached',
} as const
type Guess = keyof typeof words
const kinds = Object.keys(words) as Guess[]

/** What was guessed of a note, in words; empty where nothing was. */
export const guessed = (note: LineNote) =>
  kinds
    .filter((k) => note[k])
    .map((k) => words[k])
    .join(', ')
    .replace(/, (?=[^,]*$)/, ' and ')

/** The note as the player wants it. */
export const settled = (note: LineNote): LineNote => ({
  ...note,
  placeGuessed: undefined,
  rhythmGuessed: undefined,
  bendGuessed: undefined,
  joinGuessed: undefined,
})

/** What a change of a note leaves of its guesses: what the player decided is none any more. */
export function stillGuessed(before: LineNote, change: Partial<LineNote>): Partial<LineNote> {
  const left: Partial<LineNote> = {}
  if (before.placeGuessed && !('string' in change || 'fret' in change)) left.placeGuessed = true
  if (before.rhythmGuessed && !('start' in change || 'length' in change)) left.rhythmGuessed = true
  if (before.bendGuessed && !('bend' in change || 'release' in change)) left.bendGuessed = true
  if (before.joinGuessed && !('join' in change || 'scoop' in change)) left.joinGuessed = true
  return left
}
