import { expect, it } from 'vitest'
import { modeOf } from './landing'

it('a degree is asked for by the way to practise that counts it', () => {
  const asked = (list: string[]) => list.map(modeOf)
  expect(asked(['R'])).toEqual(['roots'])
  expect(asked(['3', 'b3'])).toEqual(['thirds', 'thirds'])
  expect(asked(['5', 'b5', '#5'])).toEqual(['fifths', 'fifths', 'fifths'])
  expect(asked(['b7', '7', 'bb7', '6'])).toEqual(['sevenths', 'sevenths', 'sevenths', 'sevenths'])
  expect(asked(['9', '4', '11', '13', ''])).toEqual(['land', 'land', 'land', 'land', 'land'])
})
