import { describe, expect, it } from 'vitest'
import { stepped } from './useCursor'

const on = { strings: 6, last: 22 }

describe('an arrow on the neck', () => {
  it('goes a fret or a string further, as the neck is seen', () => {
    const from = { string: 3, fret: 7 }
    expect(stepped(from, 'ArrowRight', on)).toEqual({ string: 3, fret: 8 })
    expect(stepped(from, 'ArrowLeft', on)).toEqual({ string: 3, fret: 6 })
    expect(stepped(from, 'ArrowUp', on)).toEqual({ string: 2, fret: 7 })
    expect(stepped(from, 'ArrowDown', on)).toEqual({ string: 4, fret: 7 })
    expect(stepped(from, 'ArrowRight', { ...on, left: true })).toEqual({ string: 3, fret: 6 })
    expect(stepped(from, 'ArrowLeft', { ...on, left: true })).toEqual({ string: 3, fret: 8 })
    expect(stepped(from, 'Enter', on)).toBeUndefined()
  })
  it('stays on the neck, from everywhere', () => {
    for (const left of [false, true])
      for (const arrow of ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'])
        for (let string = 1; string <= 6; string++)
          for (let fret = 0; fret <= 22; fret++) {
            const to = stepped({ string, fret }, arrow, { ...on, left })!
            expect(to.string >= 1 && to.string <= 6 && to.fret >= 0 && to.fret <= 22).toBe(true)
            expect(Math.abs(to.string - string) + Math.abs(to.fret - fret)).toBeLessThanOrEqual(1)
          }
  })
})
