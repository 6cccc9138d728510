import { describe, expect, it } from 'vitest'
import { quarter } from '../../api/facts'
import { metreOf } from '../../music/metre'
import { whereabouts } from './lost'

const blues = ['D7', 'D7', 'D7', 'D7', 'G7', 'G7', 'D7', 'D7', 'A7', 'G7', 'D7', 'A7']
const bars = blues.map((chord, i) => [{ at: 4 * i * quarter, chord }])
const metre = metreOf({ beats: 4, bars: 12 })

describe('who is lost', () => {
  it('is told the bar and the chord at every beat, and the next change', () => {
    for (let beat = 0; beat < 144; beat++) {
      const at = beat % 48
      const bar = Math.floor(at / 4)
      const w = whereabouts(bars, metre, beat)!
      expect([w.bar, w.chord, w.at]).toEqual([bar + 1, blues[bar], at])
      expect(w.bars! > 0 && w.bars! <= 4).toBe(true)
      expect(blues[(bar + w.bars!) % 12]).toBe(w.next)
      for (let b = 1; b < w.bars!; b++) expect(blues[(bar + b) % 12]).toBe(w.chord)
    }
  })
  it('in bars of several chords, of another length, and before the top', () => {
    const two = [[{ at: 0, chord: 'C' }, { at: 2 * quarter, chord: 'A7' }], [{ at: 4 * quarter, chord: 'D7' }]] // prettier-ignore
    const m = metreOf({ beats: 4, bars: 2, lengths: [4, 2] })
    expect(whereabouts(two, m, 1)).toEqual({ bar: 1, chord: 'C', next: 'A7', bars: 0, at: 1 })
    expect(whereabouts(two, m, 5)).toEqual({ bar: 2, chord: 'D7', next: 'C', bars: 1, at: 5 })
    expect(whereabouts(two, m, 6)).toMatchObject({ bar: 1, chord: 'C', at: 0 })
    expect(whereabouts(two, m, -2)).toBeUndefined()
  })
  it('where nothing changes there is no next, and where nothing is there is nothing', () => {
    expect(whereabouts([[{ at: 0, chord: 'E7' }]], metreOf({ beats: 4, bars: 1 }), 2)).toEqual({ bar: 1, chord: 'E7', at: 2 }) // prettier-ignore
    expect(whereabouts([], metreOf({ beats: 4, bars: 0 }), 2)).toBeUndefined()
  })
})
