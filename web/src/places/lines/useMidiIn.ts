/* Writing from a MIDI guitar or keyboard: what is played is put under the cursor, which goes on by its step. */
import { onScopeDispose, ref } from 'vue'
import type { Entry } from './useEntry'

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

export function useMidiIn(entry: Entry, of: () => { neck: Neck; low: number; high: number } | undefined) {
  const on = ref(false)
  const trouble = ref('')
  let access: MIDIAccess | undefined
  let last = -Infinity
  let taken = new Set<number>()
  let guitar = false // more than one channel was heard: each is a string

  function hear(e: MIDIMessageEvent) {
    const [status, midi, velocity] = e.data ?? []
    const here = of()
    if (!on.value || status === undefined || status >> 4 !== 9 || !velocity) return
    if (!here) {
      trouble.value = 'Write chords under the line first; then its neck is known.'
      return
    }
    const channel = (status & 15) + 1
    guitar ||= channel > 1
    const now = e.timeStamp
    if (now - last > together && taken.size) {
      entry.go(1)
      taken = new Set()
    }
    last = now
    const place = placeOf(midi!, guitar ? channel : 0, here.neck, here, taken)
    if (!place) {
      trouble.value = 'A note that was played lies beyond this neck; it was not written.'
      return
    }
    taken.add(place.string)
    entry.put(place.fret, place.string)
  }
  const attach = () => access?.inputs.forEach((input) => (input.onmidimessage = hear))

  async function turn() {
    on.value = !on.value
    taken = new Set()
    if (!on.value || access) return
    try {
      if (!navigator.requestMIDIAccess) throw new Error('This browser does not listen to MIDI.')
      access = await navigator.requestMIDIAccess()
      access.onstatechange = attach
      attach()
      if (!access.inputs.size) trouble.value = 'No MIDI instrument is connected; plug one in and play.'
    } catch (e) {
      on.value = false
      const refused = e instanceof DOMException && ['SecurityError', 'NotAllowedError'].includes(e.name)
      trouble.value = refused ? 'The browser was not allowed to listen to MIDI.' : (e as Error).message
    }
  }
  onScopeDispose(() => access?.inputs.forEach((input) => (input.onmidimessage = null)))
  return { on, trouble, turn }
}
