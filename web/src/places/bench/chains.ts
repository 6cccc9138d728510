/* Chains of tones as they are told and drawn. */
import type { components } from '../../api/schema'
import type { Place } from '../../api/client'

export type Chain = components['schemas']['Chain']

/** The ways of a chain's voices from chord to chord, for the neck. */
export const waysOf = (c: Chain): { from: Place; to: Place }[] =>
  c.links.flatMap((l, i) =>
    i === 0
      ? l.tones.map((t) => ({ from: t, to: t }))
      : l.tones.map((t, v) => ({ from: c.links[i - 1]!.tones[v]!, to: t })),
  )

/** How far a voice went: "stays", "½↑", "1↓", "2½↑". */
export function moved(halfSteps: number): string {
  const n = Math.abs(halfSteps)
  if (!n) return 'stays'
  return `${n > 1 ? Math.floor(n / 2) : ''}${n % 2 ? '½' : ''}${halfSteps > 0 ? '↑' : '↓'}`
}

/** How many tones a chain keeps. */
export const kept = (c: Chain): number =>
  c.links
    .slice(1)
    .flatMap((l) => l.tones)
    .filter((t) => t.move === 0).length

/** A chain in words, for those who do not see it. */
export const aloud = (c: Chain, spoken: (music: string) => string): string =>
  c.links
    .map(
      (l) =>
        `${spoken(l.chord)}: ${l.tones.map((t) => `${spoken(t.degree)}, ${spoken(t.note)}, string ${t.string} fret ${t.fret}`).join(' with ')}`,
    )
    .join('; then ')
