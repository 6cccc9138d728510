import { describe, expect, it } from 'vitest'
import { placeOf } from './useMidiIn'

const standard = { midi: [64, 59, 55, 50, 45, 40], last: 22 }
const window = { low: 5, high: 8 }

describe('a note from a MIDI instrument', () => {
  it.each([
    ['on the string that its channel names', 64, 2, [], [2, 5]],
    ['in the window, where no channel names a string', 64, 0, [], [2, 5]],
    ['on another string when that one sounds', 64, 0, [2], [1, 0]],
    ['as low as it can outside the window', 86, 0, [], [1, 22]],
    ['by the window where the channel names a string it cannot lie on', 45, 1, [], [6, 5]],
  ] as const)('%s', (_, midi, channel, taken, place) => {
    expect(placeOf(midi, channel, standard, window, new Set<number>(taken))).toEqual({
      string: place[0],
      fret: place[1],
    })
  })

  it('lies nowhere beyond the neck', () => {
    expect(placeOf(39, 0, standard, window, new Set())).toBeUndefined()
    expect(placeOf(90, 0, standard, window, new Set())).toBeUndefined()
  })
})
