/* What a player holds to besides what is asked, as the address has it: "frets;strings:1-3". */
import type { Hold } from '../../api/client'

/** By kind: what it may be; nothing where that is drawn. */
export type Chosen = Map<string, string>

export function readHolds(text: string): Chosen {
  const out: Chosen = new Map()
  for (const part of text.split(';').filter(Boolean)) {
    const [kind, of] = [part.split(':')[0]!, part.split(':').slice(1).join(':')]
    out.set(kind, of)
  }
  return out
}

export const writeHolds = (chosen: Chosen) => [...chosen].map(([kind, of]) => (of ? `${kind}:${of}` : kind)).join(';')

/** What is held to at a tick, and what is next from another tick on. */
export function holdsAt(holds: Hold[], tick: number) {
  const now = holds.filter((h) => h.from <= tick && tick < h.to)
  const at = Math.min(...holds.filter((h) => h.from > tick).map((h) => h.from))
  // What stays as it is is no news.
  const next = holds.filter((h) => h.from === at && !now.some((n) => n.says === h.says))
  return { now, next, at }
}
