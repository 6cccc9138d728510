/* What a written line should be like, as it is chosen: a word sets the ways of playing, sliders change them, and a press
   asks for a little more of one thing. */
import type { Catalogue, Role } from '../../api/client'

/** Stands for the word that fits the feel of the line. */
export const fits = 'fits'

export const plain = {
  word: fits,
  spice: {} as Record<string, number>,
  rhythm: 'own',
  density: 3,
  contour: 'free',
  phrasing: 'free',
  closing: 'none',
  targets: 'any',
  chordTones: false,
  approach: true,
  lift: 0,
  seed: 1,
  from: 1,
  to: 0,
}
export type Wished = typeof plain

const between = (least: number, n: number, most: number) => Math.max(least, Math.min(most, n))
const most = 10

/** What a word sets; what is no matter of style stays as it is. */
export function inStyle(word: Catalogue['words'][number]): Partial<Wished> {
  return {
    word: word.id,
    spice: { ...word.spice },
    density: word.density,
    phrasing: word.phrasing,
    chordTones: word.chordTones ?? false,
  }
}

/** What can be asked for with one press: the same line, but for one wish. */
export const asks: { name: string; more: (w: Wished) => Partial<Wished> }[] = [
  { name: 'Another like it', more: (w) => ({ seed: w.seed + 1 }) },
  { name: 'More bends', more: (w) => spiced(w, { bends: 2 }) },
  { name: 'Fewer notes', more: (w) => ({ density: between(1, w.density - 1, 5), ...spiced(w, { rests: 2 }) }) },
  { name: 'Higher', more: (w) => ({ lift: between(-most, w.lift + 2, most) }) },
  { name: 'Begin later', more: (w) => spiced(w, { offbeat: 3 }) },
]

function spiced(w: Wished, by: Record<string, number>): Partial<Wished> {
  const spice = { ...w.spice }
  for (const [name, n] of Object.entries(by)) spice[name] = between(0, (spice[name] ?? 0) + n, most)
  return { spice }
}

/** The tastes that are not as the word has them. */
export const seasoned = (w: Wished, word: Catalogue['words'][number] | undefined): string[] =>
  Object.keys(w.spice).filter((t) => w.spice[t] !== (word?.spice[t] ?? 0))

/** As the core is asked; a word that fits is the one that fits this line. */
export const askedOf = (w: Wished, bars: number, fitting = 'plain') => ({
  ...w,
  word: w.word === fits ? fitting : w.word,
  targets: w.targets === 'any' ? undefined : w.targets.split(',').map((role) => role as Role),
  to: Math.max(w.to || bars, w.from),
})
