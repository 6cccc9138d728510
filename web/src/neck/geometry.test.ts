import { describe, expect, it } from 'vitest'
import { geometry } from './geometry'

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
})
