import { describe, expect, it } from 'vitest'
import { nearest, same } from './moves'
import { away, either } from './words'

describe('words', () => {
  it.each([
    [4, 4, 'in a bar'],
    [8, 4, 'in 2 bars'],
    [2, 4, 'in 2 beats'],
    [1, 4, 'in a beat'],
    [6, 4, 'in 6 beats'],
    [3, 3, 'in a bar'],
  ])('%i beats of %i to a bar are %s away', (beats, perBar, want) => expect(away(beats, { beats: perBar })).toBe(want))

  it('is in beats where the bars differ', () => expect(away(8, { beats: 4, lengths: [4, 2] })).toBe('in 8 beats'))

  it('lists alternatives', () => {
    expect(either([])).toBe('')
    expect(either(['5:7'])).toBe('5:7')
    expect(either(['5:7', '3:9', '1:12'])).toBe('5:7, 3:9 or 1:12')
  })
})

describe('where a move arrives', () => {
  const place = (s1: number, f1: number, s2: number, f2: number) => ({
    from: { string: s1, fret: f1 },
    to: { string: s2, fret: f2 },
    mm: 0,
  })
  const move = {
    from: { degree: '3', note: 'E' },
    to: { degree: 'b7', note: 'Eb' },
    halfSteps: -1,
    kind: 'half step' as const,
    places: [place(5, 7, 5, 6), place(3, 9, 3, 8)],
  }

  it('starts from the note in hand', () =>
    expect(nearest(move, { string: 3, fret: 9 })).toEqual({ string: 3, fret: 8 }))
  it('or takes the shortest way', () => expect(nearest(move, { string: 1, fret: 1 })).toEqual({ string: 5, fret: 6 }))
  it('or is nowhere', () => expect(nearest({ ...move, places: [] })).toBeUndefined())
  it('tells places apart', () => {
    expect(same({ string: 1, fret: 2 }, { string: 1, fret: 2 })).toBe(true)
    expect(same({ string: 1, fret: 2 }, undefined)).toBe(false)
  })
})
