/* What a lick can be counted from: a kind of chord, or the key. */
import type { LickBody } from '../api/client'

export const kinds = [
  { value: '7', name: 'a dominant seventh' },
  { value: 'm7', name: 'a minor seventh' },
  { value: 'maj7', name: 'a major seventh' },
  { value: 'm7b5', name: 'a half-diminished' },
  { value: '', name: 'a major chord' },
  { value: 'm', name: 'a minor chord' },
  { value: 'key m', name: 'the key, minor' },
  { value: 'key', name: 'the key, major' },
]

export const kindOf = (l: Pick<LickBody, 'chord' | 'ofKey'>) => (l.ofKey ? `key ${l.chord}`.trim() : l.chord)
export const overOf = (kind: string) => {
  const ofKey = kind.startsWith('key')
  return { ofKey, chord: ofKey ? kind.slice(4) : kind }
}

/** Whether a lick is led to the next change by itself: one of a bar starts where it starts, and loses nothing. */
export const lands = (l: { beats: number } | undefined) => !!l && l.beats > 4
