/* Music in plain letters ("Bb7", "b7", "bVI7") is a symbol: a note, a degree, a chord, a key or several of them. How it is
   printed and spoken is made here. A sentence is never searched for music: whoever makes it prints the symbols that it
   holds, and what a player typed stays as it was typed. */

/** A piece of what is printed: letters, or an accidental that needs the music font. */
export interface Piece {
  text: string
  accidental: boolean
}

/** A symbol as musicians print it: "B♭°7", "♯11", "♭VI7". */
export function engrave(symbol: string): string {
  return symbol
    .replace(/dim(?![a-z])/, '°')
    .replace(/(?<=(?:^|[^A-Za-z])[A-G]b?)b(?!ar|ass|lues|ox)/g, '♭') // of a note: Bb, Abb
    .replace(/(?<![A-Za-z]{2})b(?=b?(?:\d|[IViv]+(?:[^a-z]|$)))/g, '♭') // of a degree or a numeral: b7, bVI7, Cm7b5
    .replaceAll('#', '♯')
}

/** The way back, for what is searched or sent. */
export const plain = (printed: string) => printed.replaceAll('♭', 'b').replaceAll('♯', '#')

/** What is printed, its accidentals apart. */
export const pieces = (printed: string): Piece[] =>
  printed
    .split(/([♭♯]+)/)
    .filter(Boolean)
    .map((text) => ({ text, accidental: /[♭♯]/.test(text) }))

const words: Record<string, string> = { '♭': ' flat', '♯': ' sharp', '°': ' diminished' }

/**
 * What is printed, for a screen reader. A chord's root is set off from what is built on it, so that C♯ with a ninth ("C
 * sharp, 9") is not heard as C with a sharp ninth ("C, sharp 9").
 */
export const aloud = (printed: string): string =>
  printed
    .replace(/(?<![A-Za-z])([A-G][♭♯]+)(?=[\dm(])/g, '$1, ')
    .replace(/[♭♯°]/g, (c) => words[c] + ' ')
    .replace(/ +/g, ' ')
    .replace(/ ,/g, ',')
    .trim()

/** A symbol for a screen reader. */
export function spoken(symbol: string): string {
  const printed = engrave(symbol).replace(/\(/g, ', ').replaceAll(')', '').replace(/(, )+/g, ', ')
  return printed === 'R' ? 'root' : aloud(printed)
}
