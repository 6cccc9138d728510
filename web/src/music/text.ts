/** A piece of music text: plain letters, or an accidental that needs the music font. */
export interface Piece {
  text: string
  accidental: boolean
}

/** Writes plain letters ("Bbdim7", "#11", "bVI7") as musicians print them ("B♭°7", "♯11", "♭VI7"). */
export function engrave(plain: string): string {
  return plain
    .replace(/dim(?![a-z])/, '°')
    .replace(/(?<=(?:^|[^A-Za-z])[A-G]b?)b(?!ar|ass|lues|ox)/g, '♭') // of a note: Bb, Abb
    .replace(/(?<![A-Za-z]{2})b(?=b?(?:\d|[IViv]+(?:[^a-z]|$)))/g, '♭') // of a degree or a numeral: b7, bVI7, Cm7b5
    .replaceAll('#', '♯')
}

/** The way back, for what is searched or sent. */
export const plain = (printed: string) => printed.replaceAll('♭', 'b').replaceAll('♯', '#')

export function pieces(plain: string): Piece[] {
  return engrave(plain)
    .split(/([♭♯]+)/)
    .filter(Boolean)
    .map((text) => ({ text, accidental: /[♭♯]/.test(text) }))
}

const words: Record<string, string> = { '♭': ' flat', '♯': ' sharp', '°': ' diminished' }

/**
 * The same for a screen reader. A chord's root is set off from what is built on it, so that C♯ with a ninth ("C sharp,
 * 9") is not heard as C with a sharp ninth ("C, sharp 9").
 */
export function spoken(plain: string): string {
  return engrave(plain)
    .replace(/^([A-G][♭♯]+)(?=[\dm(])/, '$1, ')
    .replace(/\(/g, ', ')
    .replaceAll(')', '')
    .replace(/(, )+/g, ', ')
    .replace(/[♭♯°]/g, (c) => words[c] + ' ')
    .replace(/^R$/, 'root')
    .replace(/\s+/g, ' ')
    .replace(/ ,/g, ',')
    .trim()
}
