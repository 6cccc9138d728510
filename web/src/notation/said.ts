/* What is on a staff, for who cannot see it: each note by its name, its degree and its place. */
import type { Score } from '../api/client'
import { spoken } from '../music/text'

type Written = Score['notes'][number]

export const saidOf = (notes: Pick<Written, 'note' | 'degree' | 'string' | 'fret'>[]) =>
  notes
    .map(
      (n) =>
        `${spoken(n.note.replace(/-?\d+$/, ''))}${n.degree ? `, ${spoken(n.degree)},` : ''} on string ${n.string} fret ${n.fret}`,
    )
    .join(', ')
