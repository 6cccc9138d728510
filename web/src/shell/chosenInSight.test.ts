import { describe, expect, it } from 'vitest'
import { drawnTo } from './useChosenInSight'

describe('a row of choices wider than the screen', () => {
  it('is drawn along just so far that the chosen one is seen, with some room beside it', () => {
    const row = { left: 10, right: 310 }
    expect(drawnTo(row, { left: 20, right: 90 })).toBe(0)
    expect(drawnTo(row, { left: 290, right: 350 })).toBe(64)
    expect(drawnTo(row, { left: -40, right: 20 })).toBe(-74)
    expect(drawnTo(row, { left: 10, right: 310 })).toBe(0)
  })
})
