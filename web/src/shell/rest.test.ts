import { describe, expect, it } from 'vitest'
import { isRest, Playing, restAfter } from './useRest'

/** Seconds that pass, one by one. */
function pass(p: Playing, seconds: number, playing: boolean, from = 0) {
  let due = false
  for (let i = 0; i < seconds; i++) due = p.pass(1, playing, from + i)
  return due
}

describe('a rest', () => {
  it('is due after so long, over breaks that are none, and offered once', () => {
    const p = new Playing()
    expect(pass(p, restAfter / 2, true)).toBe(false)
    expect(pass(p, isRest - 1, false)).toBe(false)
    expect(pass(p, restAfter / 2 - 1, true)).toBe(false)
    expect(pass(p, 1, true)).toBe(true)
    expect(p.minutes).toBe(22)
    p.offer()
    expect(pass(p, restAfter, true)).toBe(false)
  })
  it('that was taken begins anew', () => {
    const p = new Playing()
    pass(p, restAfter, true)
    p.offer()
    expect(pass(p, isRest, false)).toBe(false)
    expect(pass(p, restAfter - 1, true)).toBe(false)
    expect(pass(p, 1, true)).toBe(true)
  })
  it('counts calls that are answered without the band', () => {
    const p = new Playing()
    let due = false
    for (let i = 0; i < restAfter; i++) {
      if (i % 10 === 0) p.did(i)
      due = p.pass(1, false, i)
    }
    expect(due).toBe(true)
  })
})
