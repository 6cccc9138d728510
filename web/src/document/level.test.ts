import { describe, expect, it } from 'vitest'
import type { Catalogue, LineNote, Score } from '../api/client'
import { adorned, chordAt, plainScore } from './level'

const ways = [
  { field: 'trill', adorns: true },
  { field: 'turn', adorns: true },
  { field: 'accent' },
] as unknown as Catalogue['ways']
const note = (part: object) => ({ id: 1, start: 0, length: 480, ...part }) as unknown as LineNote

describe('the two levels of a line', () => {
  it('tells what is ornamented', () => {
    expect(adorned(note({ turn: 2 }), ways)).toBe(true)
    expect(adorned(note({ accent: true }), ways)).toBe(false)
    expect(adorned(note({ trill: 0 }), ways)).toBe(false)
  })

  it('draws the plain one without what adorns it, and with all else', () => {
    const signs = [
      { kind: 'adorned', text: 'turn', value: 2 },
      { kind: 'head', text: 'a>', value: 1 },
    ]
    const plain = { id: 3, signs: [signs[1]] }
    const score = { notes: [{ id: 1, trill: 2 }, { id: 2, signs }, plain] } as unknown as Score
    const out = plainScore(score).notes
    expect(out.map((n) => n.trill)).toEqual([undefined, undefined, undefined])
    expect(out[1]!.signs).toEqual([signs[1]])
    expect(out[2]).toBe(plain)
  })

  it('finds the chord at a tick, and the first one before the top', () => {
    const score = {
      measures: [
        {
          start: 0,
          chords: [
            { beat: 0, symbol: 'C7' },
            { beat: 2, symbol: 'F7' },
          ],
        },
        { start: 3840, chords: [{ beat: 0, symbol: 'G7' }] },
      ],
    } as unknown as Score
    expect([-480, 0, 1919, 1920, 3839, 3840, 9999].map((t) => chordAt(score, t))).toEqual([
      'C7',
      'C7',
      'C7',
      'F7',
      'F7',
      'G7',
      'G7',
    ])
    expect(chordAt({ measures: [] } as unknown as Score, 0)).toBeUndefined()
  })
})
