import { describe, expect, it } from 'vitest'
import type { Note } from '../../api/client'
import { named, score, sum, took, truthIn } from './blank'

const note = (string: number, fret: number, midi: number, degree: string): Note => ({
  string,
  fret,
  midi,
  degree,
  note: '',
})
/* C7 in frets 8 to 12 on the low strings: its 5 lies at 5:10 and 6:15, its 3 at 5:7, outside. */
const tones = [
  note(6, 8, 48, 'R'),
  note(6, 12, 52, '3'),
  note(5, 7, 52, '3'),
  note(5, 10, 55, '5'),
  note(4, 5, 55, '5'),
]

describe('a blank neck', () => {
  it('takes each place of a pitch, and only what lies in the region', () => {
    const wide = truthIn(tones, { low: 5, high: 12 })
    expect(wide.size).toBe(5)
    expect(score(wide, ['6:8', '5:7', '4:5'])).toEqual({ right: 3, wrong: 0, missing: [], left: [] })
    expect(truthIn(tones, { low: 8, high: 12, strings: [6] }).size).toBe(2)
  })

  it('names what is missing once for each pitch', () => {
    const wide = truthIn(tones, { low: 5, high: 12 })
    const got = score(wide, ['6:8', '1:1'])
    expect(got).toMatchObject({ right: 1, wrong: 1, missing: ['3', '5'] })
    expect(got.left.map((n) => n.midi)).toEqual([52, 55])
    expect(score(wide, []).missing).toEqual(['R', '3', '5'])
  })

  it('adds necks up and tells them in words', () => {
    const all = sum([
      { right: 2, wrong: 1, missing: ['3', 'b7'] },
      { right: 1, wrong: 0, missing: ['b7'] },
    ])
    expect(all).toEqual({ right: 3, wrong: 1, missing: ['3', 'b7', 'b7'] })
    expect(named(all.missing)).toBe('♭7 twice, 3 once')
    expect(named(['5', '5', '5'])).toBe('5 3 times')
    expect([took(0), took(59), took(60), took(200)]).toEqual(['0 s', '59 s', '1 min', '3 min 20 s'])
  })
})
