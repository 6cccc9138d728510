import { describe, expect, it } from 'vitest'
import { placeOf, tickAt } from './along'

/* Two lines of music of a bar and two bars; notes on beats 1 and 3, and one that begins between beats. */
const bar = (start: number, x: number) => ({ x, width: 100, from: x + 10, to: x + 90, start, stop: start + 3840 })
const spot = (start: number, x: number) => ({ x, note: { start } })
const rows = [
  { boxes: [bar(0, 0)], spots: [spot(0, 10), spot(1920, 50)] },
  { boxes: [bar(3840, 0), bar(7680, 100)], spots: [spot(3840, 12), spot(8400, 140)] },
]

describe('where a tick lies', () => {
  it('is the x of the note that begins there, in its line of music', () => {
    for (const [r, row] of rows.entries())
      for (const s of row.spots) expect(placeOf(rows, s.note.start)).toEqual({ x: s.x, row: rows[r] })
  })
  it('is between the notes around it, as far as the time between them has gone', () => {
    expect(placeOf(rows, 960)!.x).toBe(30)
    expect(placeOf(rows, 1920 + 480)!.x).toBe(60)
    expect(placeOf(rows, 8400 + 1560)!.x).toBeCloseTo(165)
  })
  it('never goes back, and stays in its bar', () => {
    let last = -1
    for (let tick = 0; tick < 3840; tick += 30) {
      const { x, row } = placeOf(rows, tick)!
      expect(row).toBe(rows[0])
      expect(x).toBeGreaterThanOrEqual(last)
      expect(x).toBeLessThanOrEqual(90)
      last = x
    }
    expect(placeOf(rows, 3839)!.row).toBe(rows[0])
    expect(placeOf(rows, 3840)!.row).toBe(rows[1])
    expect(placeOf(rows, 7680)!.x).toBe(110)
  })
  it('is at the end behind the last bar, and nowhere before the first', () => {
    expect(placeOf(rows, 99_999)!.x).toBe(190)
    expect(placeOf(rows, -1)).toBeUndefined()
    expect(placeOf([], 0)).toBeUndefined()
  })
})

describe('the tick at an x', () => {
  it('is the one that lies there, to the quarter of a beat', () => {
    for (const row of rows)
      for (const box of row.boxes)
        for (let tick = box.start; tick < box.stop; tick += 240) {
          const { x } = placeOf([row], tick)!
          expect(tickAt(row, box, x), `${tick}`).toBe(tick)
        }
  })
  it('is a quarter of a beat anywhere, within the bar', () => {
    for (let x = 0; x <= 100; x++) {
      const tick = tickAt(rows[0]!, rows[0]!.boxes[0]!, x)
      expect(tick % 240).toBe(0)
      expect(tick).toBeGreaterThanOrEqual(0)
      expect(tick).toBeLessThanOrEqual(3840)
    }
  })
})
