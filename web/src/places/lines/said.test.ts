import { describe, expect, it } from 'vitest'
import type { LineNote, Score } from '../../api/client'
import { quarter } from '../../api/facts'
import type { Way } from '../../document/ways'
import { noteSaid, placeSaid } from './said'

const score = {
  beats: 4,
  measures: [0, 1, 2, 3, 4].map((i) => ({
    number: i + 1,
    start: i * 4 * quarter,
    beats: 4,
    chords: [{ beat: 0, symbol: i === 4 ? 'F7' : 'C7' }],
    strokes: [],
  })),
  notes: [],
} as unknown as Score
const ways = [
  {
    field: 'bend',
    name: 'bend',
    key: 'b',
    values: [
      { is: 1, name: 'a half step' },
      { is: 2, name: 'a whole step' },
    ],
  },
  { field: 'vibrato', name: 'vibrato', key: 'v', values: [{ is: true }] },
  { field: 'release', name: 'release', key: 'r', on: 'bend', values: [{ is: true }] },
] as unknown as Way[]
const note = (more: Partial<LineNote> = {}) => ({ id: 1, start: (16 + 1.5) * quarter, length: quarter, string: 3, fret: 8, ...more }) as LineNote // prettier-ignore
const written = { note: 'Eb4', does: { degree: 'b7' } } as unknown as Score['notes'][number]

describe('a note in words', () => {
  it('is told by its place, its name, its degree, its string and fret, and how it is played', () => {
    expect(noteSaid(note({ bend: 2, vibrato: true } as Partial<LineNote>), written, { score }, ways)).toBe(
      'bar 5, beat 2 and: E flat, flat 7 of F7, string 3 fret 8, bend a whole step, vibrato',
    )
    expect(noteSaid(note({ fret: 0 }), written, { score }, ways)).toContain('string 3 open')
    expect(noteSaid(note({ dead: true }), written, { score }, ways)).toContain('dead')
  })

  it('has every part of a beat that players name, and is nowhere read letter by letter', () => {
    const said = [0, 3, 4, 6, 8, 9, 5].map((twelfth) => placeSaid(score, 16 * quarter + (twelfth * quarter) / 12))
    expect(said).toEqual(['', ' e', ' second third', ' and', ' last third', ' a', ' +'].map((p) => `bar 5, beat 1${p}`))
    expect(placeSaid(score, -quarter)).toBe('in the pickup')
    for (const name of ['Eb4', 'F#3', 'Cbb5', 'G2', 'B#4'])
      for (const degree of ['R', 'b3', '#11', 'bb7', '13'])
        expect(noteSaid(note(), { note: name, does: { degree } } as never, { score }, ways)).not.toMatch(
          /[A-G][b#]|(^|[ ,])[b#]+\d|[♭♯]/,
        )
  })
})
