import { describe, expect, it } from 'vitest'
import { barsOf, metreOf, metreOfSheet } from './metre'

describe('beats in bars', () => {
  it.each([
    [{ beats: 4, bars: 12 }, 48],
    [{ beats: 3, bars: 2, lengths: null }, 6],
    [{ beats: 4, bars: 4, lengths: [1, 4, 4, 3] }, 12],
    [{ beats: 4, bars: 3, lengths: [4, 2, 4] }, 10],
    [{ beats: 4, bars: 0 }, 0],
  ])('%j', (bars, length) => {
    const m = metreOf(bars)
    expect([m.length, m.bars]).toEqual([length, bars.bars])
    let last = -2
    for (let beat = -bars.beats; beat < length + 2 * bars.beats; beat++) {
      const at = m.at(beat)
      expect(m.startOf(at.bar) + at.beat).toBe(beat)
      expect(at.beat).toBeGreaterThanOrEqual(0)
      expect(at.beat).toBeLessThan(m.beatsOf(at.bar))
      expect(at.bar).toBeGreaterThanOrEqual(last)
      last = at.bar
    }
    expect(m.at(-1).bar).toBe(-1)
  })
  it('come from a sheet and from a line, without its pickup', () => {
    expect(metreOfSheet([{ beats: 4 }, { beats: 2 }]).at(5)).toEqual({ bar: 1, beat: 1 })
    expect(barsOf({ beats: 4, measures: [0, 1, 2].map((number) => ({ number, beats: 4 - number })) })).toEqual({
      beats: 4,
      bars: 2,
      lengths: [3, 2],
    })
  })
})
