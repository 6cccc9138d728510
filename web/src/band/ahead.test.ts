import { describe, expect, it } from 'vitest'
import { Ahead, limits } from './ahead'

/* Frames of so many milliseconds; the place is told in the first. */
function step(ahead: Ahead, at: number, ...frames: number[]) {
  ahead.frame(at)
  ahead.told()
  for (const ms of frames) ahead.frame((at += ms / 1000))
  return at
}

describe('how long before the beat a place is told', () => {
  it('is little where drawing is quick', () => {
    const ahead = new Ahead()
    step(ahead, 1, 16, 16, 16, 16, 400) // what comes later has nothing to do with it
    expect(ahead.seconds(0.6)).toBe(limits.least)
  })

  it('grows at once to the end of the last slow frame', () => {
    const ahead = new Ahead()
    step(ahead, 1, 50, 16, 60, 16)
    expect(ahead.seconds(0.6)).toBeCloseTo(0.146)
  })

  it('shrinks again step by step', () => {
    const ahead = new Ahead()
    let now = step(ahead, 1, 120, 16, 16, 16)
    const seen = Array.from({ length: 100 }, () => {
      now = step(ahead, now + 1, 16, 16, 16, 16)
      return ahead.seconds(0.6)
    })
    expect(seen[0]).toBeCloseTo(0.139)
    expect(seen.every((s, i) => i === 0 || s <= seen[i - 1]!)).toBe(true)
    expect(seen.at(-1)).toBe(limits.least)
  })

  it('is never more than can be meant, nor half a beat', () => {
    const ahead = new Ahead()
    step(ahead, 1, 900, 16, 16, 16)
    expect(ahead.seconds(2)).toBe(limits.most)
    expect(ahead.seconds(0.25)).toBe(0.125)
    expect(ahead.seconds(0.05)).toBe(limits.least)
  })

  it('does not learn from the time the band stood still', () => {
    const ahead = new Ahead()
    ahead.frame(1)
    ahead.told()
    ahead.rest()
    ahead.frame(60)
    ahead.frame(60.016)
    expect(ahead.seconds(1)).toBe(limits.least)
  })
})
