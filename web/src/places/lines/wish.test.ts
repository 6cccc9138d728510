import { describe, expect, it } from 'vitest'
import { askedOf, asks, fits, inStyle, plain, seasoned } from './wish'

const blues = {
  id: 'box-blues',
  name: 'box blues',
  about: '',
  spice: { bends: 6, rests: 4, offbeat: 9 },
  density: 3,
  phrasing: 'call',
}
const press = (name: string) => asks.find((a) => a.name === name)!.more

describe('a wish', () => {
  it('takes its style from a word, and keeps what is no matter of style', () => {
    const wish = { ...plain, seed: 7, rhythm: 'triplets', ...inStyle(blues) }
    expect(wish).toMatchObject({ word: 'box-blues', phrasing: 'call', seed: 7, rhythm: 'triplets', chordTones: false })
    expect(seasoned(wish, blues)).toEqual([])
    wish.spice.bends = 9
    expect(seasoned(wish, blues)).toEqual(['bends'])
    expect(blues.spice.bends).toBe(6)
  })

  it('changes one thing at a press, within its bounds', () => {
    const wish = { ...plain, ...inStyle(blues) }
    expect(press('Another like it')(wish)).toEqual({ seed: 2 })
    expect(press('More bends')(wish)).toEqual({ spice: { bends: 8, rests: 4, offbeat: 9 } })
    expect(press('Fewer notes')({ ...wish, density: 1 })).toMatchObject({ density: 1, spice: { rests: 6 } })
    expect(press('Higher')({ ...wish, lift: 9 })).toEqual({ lift: 10 })
    expect(press('Begin later')(wish)).toMatchObject({ spice: { offbeat: 10 } })
    expect(press('More bends')(plain)).toEqual({ spice: { bends: 2 } })
  })

  it('is asked for as the core reads it', () => {
    expect(askedOf(plain, 12)).toMatchObject({ targets: undefined, from: 1, to: 12 })
    expect(askedOf({ ...plain, from: 5, to: 3, targets: 'third' }, 12)).toMatchObject({
      targets: ['third'],
      from: 5,
      to: 5,
    })
  })

  it('takes the word that fits the line where none is chosen', () => {
    expect(plain.word).toBe(fits)
    expect(askedOf(plain, 12, 'rock').word).toBe('rock')
    expect(askedOf(plain, 12).word).toBe('plain')
    expect(askedOf({ ...plain, word: 'jazz-blues' }, 12, 'rock').word).toBe('jazz-blues')
    expect(askedOf(plain, 12, 'rock')).toMatchObject({ rhythm: 'own', to: 12 })
  })
})
