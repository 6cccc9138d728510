import { describe, expect, it } from 'vitest'
import {
  carried,
  differences,
  metreOf,
  move,
  numberOf,
  put,
  remove,
  retype,
  span,
  typed,
  written,
  type Tile,
} from './tiles'

const bars: Tile[] = ['C7', 'F7', 'G7', 'A7'].map((text, i) => ({ text, row: i === 2 }))
const texts = (list: readonly Tile[]) => list.map((b) => b.text).join(' ')

describe('bars of a chart', () => {
  it('are written in rows', () => {
    expect(written(bars)).toBe('| C7 | F7 |\n| G7 | A7 |')
    expect(written([])).toBe('')
  })
  it.each([
    [0, 0, 2, 'F7 C7 G7 A7', 1],
    [0, 1, 4, 'G7 A7 C7 F7', 2],
    [2, 3, 0, 'G7 A7 C7 F7', 0],
    [1, 2, 2, 'C7 F7 G7 A7', 1], // into itself: it stays
    [3, 3, 9, 'C7 F7 G7 A7', 3],
    [3, 3, 0, 'A7 C7 F7 G7', 0],
  ])('%i to %i move before %i', (from, to, before, want, at) => {
    const moved = move(bars, { from, to }, before)
    expect(texts(moved.bars)).toBe(want)
    expect(moved.now.from).toBe(at)
    expect(moved.bars.map((b) => !!b.row)).toEqual([false, false, true, false])
  })
  it('come and go', () => {
    expect(texts(remove(bars, span(2, 1)))).toBe('C7 A7')
    expect(texts(put(bars, 1, [{ text: 'D7', row: true }]))).toBe('C7 D7 F7 G7 A7')
    expect(texts(retype(bars, 3, 'E7'))).toBe('C7 F7 G7 E7')
    expect(written(put([], 0, [{ text: 'D7', row: true }]))).toBe('| D7 |')
  })
})

describe('another form', () => {
  const of = (...chords: string[]) => chords.map((c) => ({ chords: c, beats: 4 }))
  it('differs bar by bar', () => {
    expect(differences(of('C7', 'F7'), of('C7', 'F7'))).toEqual([])
    expect(differences(of('C7', 'C7', 'G7'), of('C7', 'F7'))).toEqual([
      { bar: 2, was: 'C7', now: 'F7' },
      { bar: 3, was: 'G7', now: undefined },
    ])
    expect(differences(of('C7'), [{ chords: 'C7', beats: 2 }])).toEqual([{ bar: 1, was: '4/4 C7', now: '2/4 C7' }])
  })
})

describe('a pickup', () => {
  const lead = { text: 'pickup 1/4 G7', chords: 'G7', beats: 1, pickup: true }
  const bars: (Omit<typeof lead, 'pickup'> & { pickup?: boolean })[] = [
    lead,
    { text: 'C7', chords: 'C7', beats: 4 },
    { text: 'no pickup 2/4 F7', chords: 'F7', beats: 2 },
  ]
  it('stands before the first bar and is none', () => {
    expect(bars.map((_, i) => numberOf(bars, i))).toEqual([0, 1, 2])
    expect(bars.slice(1).map((_, i) => numberOf(bars.slice(1), i))).toEqual([1, 2])
    expect(bars.map((_, i) => metreOf(bars, i))).toEqual(['', '', '2/4'])
    expect(written(bars)).toBe('| pickup 1/4 G7 | C7 | no pickup 2/4 F7 |')
  })
  it('that a short bar is none is typed at the top alone', () => {
    expect(typed(bars, 2)).toBe('2/4 F7')
    expect(typed(bars.slice(2), 0)).toBe('no pickup 2/4 F7')
    expect(carried(bars.slice(1))).toBe('| C7 | 2/4 F7 |')
  })
  it('is told apart from bars where a form takes their place', () => {
    expect(differences(bars, bars.slice(1))).toEqual([{ bar: 0, was: 'G7', now: undefined }])
    expect(differences(bars.slice(1), bars)).toEqual([{ bar: 0, was: undefined, now: 'G7' }])
    expect(differences(bars, bars)).toEqual([])
  })
})
