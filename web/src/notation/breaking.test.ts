import { describe, expect, it } from 'vitest'
import type { Score } from '../api/client'
import { changes, dense, heads, key, keyOf, line, lines, systemOf, tab, usual, wants } from './breaking'

interface N {
  id: number
  note: string
  [more: string]: unknown
}
/* A score of so many bars with four quarters each; what a bar or note has otherwise is said. */
function score(
  bars: number,
  more: { of?: (bar: number) => object; note?: (id: number) => Partial<N>; stroke?: (id: number) => object } = {},
  over: object = {},
): Score {
  // prettier-ignore
  const notes: N[] = []
  const measures = Array.from({ length: bars }, (_, bar) => ({
    number: bar + 1, start: bar * 3840, beats: 4, chords: [{ beat: 0, symbol: 'C7' }],
    strokes: [0, 1, 2, 3].map((k) => {
      const id = bar * 4 + k + 1
      notes.push({ id, note: 'C4', string: 3, midi: 60, ...more.note?.(id) })
      return { at: k * 960, base: 4, notes: [id], ...more.stroke?.(id) }
    }),
    ...more.of?.(bar + 1),
  })) // prettier-ignore
  return { signature: 0, strings: 6, bass: false, notes, measures, ...over } as unknown as Score
}
const numbers = (s: Score, width: number) => lines(s, width).map((row) => row.map((p) => p.measure.number))

describe('where a note stands', () => {
  it('is written an octave above its sound', () => {
    expect(key('E2')).toEqual({ letter: 'e', accidental: '', octave: 3 })
    expect(key('Bb3')).toEqual({ letter: 'b', accidental: 'b', octave: 4 })
    expect(key('C#-1')).toEqual({ letter: 'c', accidental: '#', octave: 0 })
  })
  it('in steps above the bottom line: E of the treble clef, G of the bass clef', () => {
    expect(line('E3', false)).toBe(0)
    expect(line('F4', false)).toBe(8)
    expect(line('D3', false)).toBe(-1)
    expect(line('G1', true)).toBe(0)
    expect(line('A2', true)).toBe(8)
    expect(line('Bb3', false)).toBe(line('B3', false))
  })
})

describe('the width of a bar', () => {
  it('is that of its strokes and chords, at least a little', () => {
    expect(wants(score(1).measures[0]!, score(1))).toBe(4 * 26 + 30)
    const few = score(1, { of: () => ({ strokes: [] }) })
    expect(wants(few.measures[0]!, few)).toBe(96)
    const chords = score(1, { of: () => ({ chords: [1, 2, 3, 4].map(() => ({ beat: 0, symbol: 'C7' })) }) })
    expect(wants(chords.measures[0]!, chords)).toBe(4 * 58)
  })
  it('grows with accidentals, bends, vibrato and long notes', () => {
    const of = (note: object, stroke = {}) => {
      const s = score(1, { note: () => note, stroke: () => stroke })
      return wants(s.measures[0]!, s)
    }
    expect(of({ note: 'Bb3' })).toBe(4 * 33 + 30)
    expect(of({ note: 'F#3' })).toBe(4 * 33 + 30)
    expect(of({ bend: 4 })).toBe(4 * 42 + 30)
    expect(of({ vibrato: true })).toBe(4 * 42 + 30)
    expect(of({}, { base: 2 })).toBe(4 * 40 + 30)
    expect(of({}, { base: 8 })).toBe(4 * 26 + 30)
  })
  it('has room for another metre', () => {
    const s = score(3, { of: (bar) => (bar === 2 ? { beats: 3 } : {}) })
    expect(s.measures.map((m) => changes(s, m))).toEqual([false, true, true])
    expect(wants(s.measures[1]!, s)).toBe(wants(s.measures[0]!, s) + 24)
  })
})

describe('lines of music', () => {
  const four = { of: (bar: number) => ({ row: bar % 4 === 1 }) }
  it('break where it is wished', () => {
    expect(numbers(score(8, four), 2000)).toEqual([[1, 2, 3, 4], [5, 6, 7, 8]]) // prettier-ignore
    expect(numbers(score(3), 2000)).toEqual([[1, 2, 3]])
    expect(lines(score(0), 2000)).toEqual([])
  })
  it('and evenly where the paper is too narrow, one bar to a line at the least', () => {
    expect(numbers(score(4, four), 78 + 4 * 134)).toEqual([[1, 2, 3, 4]])
    expect(numbers(score(4, four), 78 + 4 * 134 - 1)).toEqual([[1, 2], [3, 4]]) // prettier-ignore
    expect(numbers(score(4, four), 78 + 2 * 134 - 1)).toEqual([[1], [2], [3], [4]])
    expect(numbers(score(4, four), 100)).toEqual([[1], [2], [3], [4]])
    expect(numbers(score(4, four, { signature: 4 }), 78 + 40 + 4 * 134)).toEqual([[1, 2, 3, 4]])
    expect(numbers(score(4, four, { signature: -4 }), 78 + 40 + 4 * 134 - 1)).toEqual([[1, 2], [3, 4]]) // prettier-ignore
  })
  it('leave a pickup with the bar that it leads to', () => {
    const s = score(3, { of: (bar) => ({ number: bar - 1, row: true }) })
    expect(numbers(s, 2000)).toEqual([[0, 1], [2]])
  })
})

describe('the height of a line of music', () => {
  const at = (more: Parameters<typeof score>[1] = {}, space = usual, over = {}) => {
    const s = score(1, more, over)
    return systemOf(s, lines(s, 2000)[0]!, space)
  }
  const plain = at()
  it('has its parts over each other', () => {
    expect([plain.chords, plain.staffTop, plain.tabBottom, plain.degrees, plain.height]).toEqual([22, 44, 193, 221, 235]) // prettier-ignore
    expect(tab({ strings: 6 } as Score, usual)).toBe(65)
    expect(at({}, dense).height).toBeLessThan(plain.height)
    expect(plain.string).toBe(13)
  })
  it('grows with what stands above the staff', () => {
    const taller = (more: Parameters<typeof score>[1]) => at(more).staffTop - plain.staffTop
    expect(taller({ note: () => ({ note: 'F5' }) })).toBe(43)
    expect(taller({ stroke: () => ({ tuplet: 3 }) })).toBe(14)
    expect(taller({ note: () => ({ named: 'C7' }) })).toBe(18)
    expect(taller({ note: () => ({ signs: [{ kind: 'head' }, { kind: 'adorned' }, { kind: 'else' }], trill: 1 }) })).toBe(36) // prettier-ignore
    expect(taller({ of: () => ({ section: 'A' }) })).toBe(15)
  })
  it('and with what stands below it', () => {
    const taller = (more: Parameters<typeof score>[1]) => at(more).tabBottom - plain.tabBottom
    expect(taller({ note: () => ({ note: 'E2' }) })).toBe(23)
    expect(taller({ stroke: () => ({ base: 16 }) })).toBe(10)
    expect(taller({ stroke: () => ({ tuplet: 3 }) })).toBe(14 + 20)
    const double = score(1)
    double.measures[0]!.strokes[0]!.notes.push(2)
    expect(systemOf(double, lines(double, 2000)[0]!, usual).height - plain.height).toBe(22)
  })
})

describe('what a drawing depends on', () => {
  const of = { first: true, last: false, width: 900, fingers: true, close: false }
  const drawn = (s: Score, more = {}) => keyOf(s, lines(s, 2000)[0]!, { ...of, ...more })
  const base = drawn(score(2))
  it('is the same for the same, also where only its number in thought changed', () => {
    expect(drawn(score(2))).toBe(base)
    expect(drawn(score(2, { note: () => ({ does: 'the third of C7' }) }))).toBe(base)
    expect(drawn(score(2, { note: () => ({ before: 1 }) }))).toBe(base)
  })
  it('is another with another note, width, place on the page, join or look', () => {
    const others = [
      drawn(score(2, { note: (id) => (id === 3 ? { note: 'D4' } : {}) })),
      drawn(score(2), { width: 901 }), drawn(score(2), { first: false }), drawn(score(2), { last: true }), drawn(score(2), { close: true }), drawn(score(2), { fingers: false }),
      drawn(score(2, { note: () => ({ join: 'slide', before: 1 }) })), drawn(score(2, {}, { signature: 1 })), drawn(score(2, {}, { bass: true })), drawn(score(3)),
    ] // prettier-ignore
    expect(new Set([base, ...others]).size).toBe(others.length + 1)
  })
  it('heads are the notes of a stroke', () => {
    const s = score(1)
    expect(heads(s, s.measures[0]!.strokes[2]!).map((n) => n.id)).toEqual([3])
  })
})
