/* How necks lie on paper: as many chords side by side as stay readable; a longer chart takes more sheets. */
export type Paper = 'A4' | 'Letter'

/** Of a sheet on its side, in millimetres. */
export const sizeOf = (paper: Paper) => (paper === 'A4' ? { width: 297, height: 210 } : { width: 279.4, height: 215.9 })

export const pageRule = (paper: Paper) => `@page { size: ${paper === 'A4' ? 'A4' : 'letter'} landscape; margin: 0 }`

/** Long regions lie one below the other, and show every place and not one run. */
export const isWide = (frets: number) => frets > 12

/** What stands in columns, on as few sheets as hold it and evenly. */
export function sheetsOf<T>(columns: readonly T[], frets: number): T[][] {
  const most = isWide(frets) ? 4 : frets > 8 ? 3 : 8
  const n = Math.ceil(columns.length / most)
  const each = Math.ceil(columns.length / Math.max(n, 1))
  return Array.from({ length: n }, (_, s) => columns.slice(s * each, (s + 1) * each))
}

/** A fret as wide as the columns of a sheet leave room for, in units of which a string has 25. */
export function fretWidth(paper: Paper, chords: number, rows: number, frets: number) {
  const column = (sizeOf(paper).width - 38) / chords
  const row = (sizeOf(paper).height - 45) / Math.max(rows, 1)
  return Math.min(78, Math.max(34, ((column / row) * 181 - 20) / frets))
}
