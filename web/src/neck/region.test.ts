import { expect, it } from 'vitest'
import { holds, onStrings, stringsOf, told, written } from './region'

it('a region holds its frets on its strings', () => {
  const r = { low: 5, high: 9 }
  expect([4, 5, 9, 10].map((fret) => holds(r, { string: 3, fret }))).toEqual([false, true, true, false])
  expect([5, 4, 2].map((string) => holds({ ...r, strings: [5, 2] }, { string, fret: 7 }))).toEqual([true, false, true])
  expect(holds({ ...r, strings: [] }, { string: 4, fret: 7 })).toBe(true)
})
it('strings are read from an address, the lowest first and each once; what is none is left out', () => {
  expect(stringsOf('2,5')).toEqual([5, 2])
  expect(stringsOf('5,5,1')).toEqual([5, 1])
  expect(stringsOf('0,9,-1,1.5,x,8,1')).toEqual([8, 1])
  expect(stringsOf('')).toEqual([])
  expect([written([5, 2]), written([]), written(undefined)]).toEqual(['5,2', undefined, undefined])
})
it('is told in words', () => {
  expect([[], [4], [5, 2], [6, 4, 1]].map(onStrings)).toEqual(['', 'string 4', 'strings 5 and 2', 'strings 6, 4 and 1'])
  expect([told({ low: 5, high: 12 }), told({ low: 0, high: 4, strings: [5, 2] }), told({ low: 0, high: 4, strings: [] })]).toEqual(['5–12', '0–4 on 5, 2', '0–4']) // prettier-ignore
})
