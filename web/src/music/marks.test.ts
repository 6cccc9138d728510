import { describe, expect, it } from 'vitest'
import { legend, markOf } from './marks'

describe('our marks', () => {
  it('are told apart without their colours: each has a shape of its own, and a line of its own', () => {
    const marks = legend.map((e) => markOf(e.degree))
    expect(new Set(marks.map((m) => m.shape)).size).toBe(marks.length)
    expect(new Set(marks.map((m) => `${m.rail.width} ${m.rail.dash}`)).size).toBe(marks.length)
    // In dashes alone, or else in thickness by a good half.
    for (const a of marks)
      for (const b of marks)
        if (a !== b && a.rail.dash === b.rail.dash)
          expect(Math.max(a.rail.width, b.rail.width) / Math.min(a.rail.width, b.rail.width)).toBeGreaterThan(1.5)
  })
})
