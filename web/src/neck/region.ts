/* A region of the neck: a range of frets, on some strings or on all of them. */
export interface Region {
  low: number
  high: number
  /** the lowest first; all where none is said */
  strings?: number[]
}

export const holds = (r: Region, p: { string: number; fret: number }) =>
  p.fret >= r.low && p.fret <= r.high && (!r.strings?.length || r.strings.includes(p.string))

/** Numbers as they are asked for, "5,2", and back; nothing is every string. */
export const stringsOf = (text: string) =>
  [...new Set(text.split(',').map(Number))]
    .filter((n) => Number.isInteger(n) && n >= 1 && n <= 8)
    .toSorted((a, b) => b - a)
export const written = (strings: number[] | undefined) => (strings?.length ? strings.join(',') : undefined)

/** Its frets as they stand in an address, "7-11", and back; nothing where that is no such text. */
export const spanOf = (r: Region) => `${r.low}-${r.high}`
export const readFrets = (text: string): { low: number; high: number } | undefined => {
  const [low, high] = (/^(\d+)-(\d+)$/.exec(text) ?? []).slice(1).map(Number)
  return low === undefined || high === undefined ? undefined : { low, high }
}

/** A position as it is called everywhere: "frets 7 to 11, E shape". */
export const positionName = (p: Region & { shape?: string }) =>
  `frets ${p.low} to ${p.high}${p.shape ? `, ${p.shape} shape` : ''}`

/** In words: "string 4", "strings 5 and 2"; of every string nothing. */
export const onStrings = (strings: number[]) =>
  strings.length < 2
    ? strings.map((s) => `string ${s}`).join('')
    : `strings ${strings.slice(0, -1).join(', ')} and ${strings.at(-1)}`

/** In words: "5–12 on 5, 2". */
export const told = (r: Region) => `${r.low}–${r.high}${r.strings?.length ? ` on ${r.strings.join(', ')}` : ''}`
