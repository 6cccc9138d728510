import { describe, expect, it } from 'vitest'
import { markOf, outline } from './marks'
import { aloud, engrave, pieces, spoken } from './text'

describe('music text', () => {
  it.each([
    ['Bb7', 'B♭7'],
    ['Adim7', 'A°7'],
    ['Cm7b5', 'Cm7♭5'],
    ['#IVdim7', '♯IV°7'],
    ['Abb', 'A♭♭'],
    ['Cadd9', 'Cadd9'],
    ['Csus4', 'Csus4'],
    ['bVI7', '♭VI7'],
    ['bvii', '♭vii'],
    ['b7', '♭7'],
    ['bb7', '♭♭7'],
    ['C7/Bb', 'C7/B♭'],
    ['over Cm7b5', 'over Cm7♭5'],
    ['Ebmaj7', 'E♭maj7'],
    ['C7b9b13', 'C7♭9♭13'],
    ['Twelve-bar', 'Twelve-bar'],
    ['box of C, bars 1', 'box of C, bars 1'],
    ['E A D G B E', 'E A D G B E'],
    ['Eb Ab Db Gb Bb Eb', 'E♭ A♭ D♭ G♭ B♭ E♭'],
  ])('engraves %s as %s', (plain, want) => expect(engrave(plain)).toBe(want))

  it('sets accidentals apart for their font', () =>
    expect(pieces(engrave('Bb7#9'))).toEqual([
      { text: 'B', accidental: false },
      { text: '♭', accidental: true },
      { text: '7', accidental: false },
      { text: '♯', accidental: true },
      { text: '9', accidental: false },
    ]))

  it('leaves what somebody said as it is, and speaks the music that is printed in it', () => {
    for (const typed of ['Abbot’s Quay', 'In the dim light', 'Ebbing', 'Bb or not #1', '<b>C7</b>', 'مرحبا 🎸'])
      expect(pieces(typed)).toEqual([{ text: typed, accidental: false }])
    expect(aloud('the change from B♭7 to F♯7 (slowly)')).toBe('the change from B flat, 7 to F sharp, 7 (slowly)')
    expect(aloud('the ♭7 of C7')).toBe('the flat 7 of C7')
    expect(aloud('A°7 in B♭')).toBe('A diminished 7 in B flat')
  })

  it('speaks', () => {
    expect(spoken('Bb7')).toBe('B flat, 7')
    expect(spoken('C#9')).toBe('C sharp, 9')
    expect(spoken('C(#9)')).toBe('C, sharp 9')
    expect(spoken('C7#9')).toBe('C7 sharp 9')
    expect(spoken('F#m7b5')).toBe('F sharp, m7 flat 5')
    expect(spoken('Bb')).toBe('B flat')
    expect(spoken('R')).toBe('root')
  })
})

describe('marks', () => {
  it('tells degrees apart by shape', () => {
    expect(['R', 'b3', '#5', 'b7', '#11'].map((d) => markOf(d).shape)).toEqual([
      'pick',
      'diamond',
      'disc',
      'banner',
      'ring',
    ])
  })

  it('draws outlines around a point', () => {
    expect(outline('diamond', 10, 100, 50)).toBe('M 100 38.2 L 111.8 50 L 100 61.8 L 88.2 50 Z')
  })
})
