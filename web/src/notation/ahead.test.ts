import { describe, expect, it } from 'vitest'
import type { LineNote, Written } from '../api/client'
import { freshOf, goneOf, holders } from './ahead'
import type { Box } from './engrave'

const bar = (start: number): Box => ({ measure: 1, start, stop: start + 3840, x: 0, width: 400, from: 0, to: 400 })
const row = (start: number, ...ids: number[]) => ({
  boxes: [bar(start)],
  spots: ids.map((id, i) => ({ x: i * 100, note: { id, start: start + i * 960 } as Written })),
})
const note = (id: number, start: number, more: Partial<LineNote> = {}) =>
  ({ id, start, length: 960, string: 2, fret: 8, note: '', ...more }) as LineNote

describe('what is not engraved yet', () => {
  const rows = [row(0, 1, 2), row(3840, 3)]

  it('is taken from the line of music that holds it, and from no other', () => {
    const gone = goneOf(holders(rows), [2, 3, 99])
    expect([[...gone.get(rows[0]!)!], [...gone.get(rows[1]!)!]]).toEqual([[2], [3]])
    expect(goneOf(holders(rows), []).size).toBe(0)
  })

  it('is shown where it will be, with what it is', () => {
    const fresh = freshOf(rows, [note(7, 480), note(8, 3840, { dead: true }), note(9, 960, { string: 0 })])
    expect(fresh.get(rows[0]!)).toEqual([
      { id: 7, x: 50, string: 2, text: '8' },
      { id: 9, x: 100, string: 1, text: '8' },
    ])
    expect(fresh.get(rows[1]!)).toEqual([{ id: 8, x: 0, string: 2, text: '×' }])
    expect(freshOf([], [note(7, 0)]).size).toBe(0)
  })
})
