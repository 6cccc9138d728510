import { describe, expect, it } from 'vitest'
import { geometry, neckHigh, thumbHigh, thumbWide } from './geometry'

const frame = { width: 1000, height: 290, from: 0, to: 22 }
const open = ['E', 'B', 'G', 'D', 'A', 'E']

describe('neck geometry', () => {
  const right = geometry(frame, { open, left: false })
  const left = geometry(frame, { open, left: true })

  it('puts low frets on the left and string 1 on top', () => {
    for (let n = 1; n <= 22; n++) expect(right.fret(n)).toBeGreaterThan(right.fret(n - 1))
    expect(right.string(1)).toBeLessThan(right.string(6))
  })

  it('mirrors for left-handers', () => {
    for (let n = 0; n <= 22; n++) expect(left.fret(n)).toBeCloseTo(frame.width - right.fret(n))
  })

  it('finds the fret under the pointer', () => {
    for (let n = 1; n <= 22; n++) {
      expect(right.fretAt(right.fret(n))).toBe(n)
      expect(left.fretAt(left.fret(n))).toBe(n)
    }
    expect(right.fretAt(5000)).toBe(22)
    expect(right.fretAt(-5)).toBe(0)
    expect(left.fretAt(5000)).toBe(0)
  })

  it('starts above the nut when cropped', () => {
    const part = geometry({ ...frame, from: 5, to: 12 }, { open, left: false })
    expect(part.fret(5)).toBeGreaterThan(20)
    expect(part.wire(12)).toBeLessThanOrEqual(1000)
  })

  it('keeps strings and frets a thumb apart where it is narrow, on four to eight strings', () => {
    for (let strings = 4; strings <= 8; strings++)
      for (const width of [240, 320, 390, 699]) {
        const height = neckHigh(width, 844, strings)
        expect(height).toBe(thumbHigh(strings))
        const to = 5 + thumbWide(width)
        const g = geometry({ width, height, from: 5, to: to - 1 }, { open: open.slice(0, 1).concat(Array(strings - 1).fill('E')), left: false }) // prettier-ignore
        expect(g.gap).toBeGreaterThanOrEqual(44)
        if (width >= 320) for (let n = 6; n < to; n++) expect(2 * g.half(n)).toBeGreaterThanOrEqual(36)
      }
    expect([neckHigh(1100, 800, 6), neckHigh(1100, 1080, 6), neckHigh(1100, 2000, 6)]).toEqual([224, 324, 420])
  })
})
