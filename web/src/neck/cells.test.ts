import { describe, expect, it } from 'vitest'
import { towards } from './cells'

describe('places come to by arrows', () => {
  it('are all reached, on any strings, and an arrow never leaves them', () => {
    for (const strings of [[1, 2, 3, 4, 5, 6], [2, 4], [3], [1, 2, 3, 4, 5, 6, 7]])
      for (const left of [false, true]) {
        const on = { strings, frets: [5, 6, 7, 8], left }
        const seen = new Set<string>()
        const queue = [{ string: strings[0]!, fret: 5 }]
        while (queue.length) {
          const at = queue.pop()!
          const name = `${at.string}:${at.fret}`
          if (seen.has(name)) continue
          seen.add(name)
          for (const arrow of ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight']) {
            const to = towards(at, arrow, on)!
            expect(strings).toContain(to.string)
            expect(on.frets).toContain(to.fret)
            queue.push(to)
          }
        }
        expect(seen.size).toBe(strings.length * 4)
      }
  })

  it('lie as the neck is seen', () => {
    const on = { strings: [1, 2, 3], frets: [0, 1, 2] }
    const at = { string: 2, fret: 1 }
    expect(towards(at, 'ArrowUp', on)).toEqual({ string: 1, fret: 1 })
    expect(towards(at, 'ArrowRight', on)).toEqual({ string: 2, fret: 2 })
    expect(towards(at, 'ArrowRight', { ...on, left: true })).toEqual({ string: 2, fret: 0 })
    expect(towards(at, 'Enter', on)).toBeUndefined()
  })
})
