import { describe, expect, it } from 'vitest'
import { restsOver, withRests } from './rests'

describe('what may rest', () => {
  it('is the usual where nothing is said, and over a place as elsewhere', () => {
    expect(restsOver('')).toBe('usual')
    expect(restsOver('', 'five')).toBe('')
    expect(restsOver('strict,five:wide')).toBe('strict')
    expect(restsOver('strict,four:usual,five:wide', 'five')).toBe('wide')
    expect(restsOver('strict,five:wide', 'one')).toBe('')
  })

  it('is another over one place and stays as it is over the others, in whatever order it is said', () => {
    for (const first of ['', 'strict', 'usual', 'wide'])
      for (const places of [
        ['one', 'four', 'five'],
        ['five', 'one', 'four'],
      ]) {
        let text = first
        for (const [i, place] of places.entries()) text = withRests(text, ['wide', 'strict', 'usual'][i]!, place)
        expect(places.map((p) => restsOver(text, p))).toEqual(['wide', 'strict', 'usual'])
        expect(restsOver(text)).toBe(first || 'usual')
        expect(restsOver(withRests(text, 'strict'))).toBe('strict')
        expect(restsOver(withRests(text, 'strict'), places[0])).toBe('wide')
        expect(restsOver(withRests(text, 'strict', places[0]), places[0])).toBe('strict')
        for (const place of places) text = withRests(text, '', place)
        expect(text).toBe(first || 'usual')
      }
  })
})
