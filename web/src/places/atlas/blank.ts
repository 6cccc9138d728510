/* Blank necks that a player fills in: what is right, what is wrong, what is missing. Each place of a pitch will do. */
import type { Note } from '../../api/client'
import { engrave } from '../../music/text'
import { holds, type Region } from '../../neck/region'

export interface Filled {
  right: number
  wrong: number
  /** the degrees of the pitches that are marked nowhere */
  missing: string[]
}

export const placeOf = (p: { string: number; fret: number }) => `${p.string}:${p.fret}`

/** The tones of a chord in a region, by place. */
export const truthIn = (tones: Note[], region: Region): Map<string, Note> =>
  new Map(tones.filter((n) => holds(region, n)).map((n) => [placeOf(n), n]))

export function score(truth: Map<string, Note>, marks: readonly string[]): Filled & { left: Note[] } {
  const right = marks.filter((m) => truth.has(m))
  const found = new Set(right.map((m) => truth.get(m)!.midi))
  const open = [...truth.values()].filter((n) => !found.has(n.midi))
  const left = open.filter((n, i) => open.findIndex((o) => o.midi === n.midi) === i)
  return { right: right.length, wrong: marks.length - right.length, missing: left.map((n) => n.degree), left }
}

export function sum(all: readonly Filled[]): Filled {
  return {
    right: all.reduce((n, f) => n + f.right, 0),
    wrong: all.reduce((n, f) => n + f.wrong, 0),
    missing: all.flatMap((f) => f.missing),
  }
}

const times = (n: number) => ['', 'once', 'twice'][n] ?? `${n} times`

/** "3 twice, b7 once": the most often missed first. */
export function named(missing: readonly string[]): string {
  const counts = new Map<string, number>()
  for (const d of missing) counts.set(d, (counts.get(d) ?? 0) + 1)
  return [...counts].toSorted((a, b) => b[1] - a[1]).map(([d, n]) => `${engrave(d)} ${times(n)}`).join(', ') // prettier-ignore
}

/** "3 min 20 s". */
export function took(seconds: number): string {
  const [min, s] = [Math.floor(seconds / 60), Math.round(seconds % 60)]
  return [min && `${min} min`, (s || !min) && `${s} s`].filter(Boolean).join(' ')
}
