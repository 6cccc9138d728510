/* Notes of a simulated player as the synthesiser plays them. */
import type { HeardNote } from '../api/client'
import { players } from '../band/messages'
import type { SoundEvent } from '../band/transport'

const track = players.indexOf('player')
const velocity = 100
/** Half steps that the wheel bends by at most, and its middle. */
const range = 2
const middle = 8192
/** Ticks from one place of the wheel to the next in a vibrato, and of one sway. */
const fine = 24
const sway = 300
/** Ticks that a note lasts that nobody let go. */
const usual = 400

const wheel = (at: number, by: number): SoundEvent => {
  const value = Math.max(0, Math.min(2 * middle - 1, Math.round(middle + (by / range) * middle)))
  return { at, track, data: [0xe0, value & 127, value >> 7] }
}

/** The notes, so many ticks further on. */
export function soundEvents(notes: HeardNote[], on = 0): SoundEvent[] {
  return notes.flatMap(({ at, length, pitch, sway: width }) => {
    const midi = Math.round(pitch)
    const off = pitch - midi
    const [from, to] = [at + on, at + on + (length || usual)]
    const bends = [wheel(from, off)]
    if (width)
      for (let t = 0.25 * sway; from + t < to; t += fine)
        bends.push(wheel(from + t, off + (width * (1 - Math.cos((2 * Math.PI * t) / sway))) / 2))
    return [...bends, { at: from, track, data: [0x90, midi, velocity] }, { at: to - 1, track, data: [0x80, midi, 64] }]
  })
}
