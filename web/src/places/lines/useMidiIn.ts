/* Writing from a MIDI guitar or keyboard: what is played is put under the cursor, which goes on by its step. */
import { watch } from 'vue'
import { useMidi } from '../../listen/useMidi'
import type { Entry } from './useEntry'
import type { Take } from './useTake'

/** Notes within so many milliseconds sound together. */
const together = 60

/** The neck that is written for: MIDI numbers of the open strings, string 1 first, and the highest fret. */
export interface Neck {
  midi: number[]
  last: number
}

/**
 * Where a note lies: on the string that a MIDI guitar names by its channel, else in the window, else as low as it can.
 * A string that sounds already is left alone.
 */
export function placeOf(
  midi: number,
  channel: number,
  neck: Neck,
  window: { low: number; high: number },
  taken: Set<number>,
) {
  const places = neck.midi
    .map((open, i) => ({ string: i + 1, fret: midi - open }))
    .filter((p) => p.fret >= 0 && p.fret <= neck.last && !taken.has(p.string))
  const named = places.find((p) => p.string === channel)
  const inside = places.find((p) => p.fret >= window.low && p.fret <= window.high)
  return named ?? inside ?? places.toSorted((a, b) => a.fret - b.fret)[0]
}

export function useMidiIn(
  entry: Entry,
  of: () => { neck: Neck; low: number; high: number } | undefined,
  /** What is played while the line is heard is a take of it, and is not written. */
  take: Take,
) {
  let last = -Infinity
  let taken = new Set<number>()
  let guitar = false // more than one channel was heard: each is a string
  const midi = useMidi({
    struck({ midi: note, channel, at }) {
      if (take.running()) return take.struck({ midi: note, channel, at })
      const here = of()
      if (!here) {
        midi.trouble.value = 'Write chords under the line first; then its neck is known.'
        return
      }
      guitar ||= channel > 1
      if (at - last > together && taken.size) {
        entry.go(1)
        taken = new Set()
      }
      last = at
      const place = placeOf(note, guitar ? channel : 0, here.neck, here, taken)
      if (!place) {
        midi.trouble.value = 'A note that was played lies beyond this neck; it was not written.'
        return
      }
      taken.add(place.string)
      entry.put(place.fret, place.string)
    },
    released: (note) => take.released(note),
    bent: (bend) => take.bent(bend),
  })
  watch(midi.on, () => (taken = new Set()))
  return midi
}
