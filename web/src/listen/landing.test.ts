import { expect, it } from 'vitest'
import { landingAt, modeOf } from './landing'

it('a degree is asked for by the way to practise that counts it', () => {
  const asked = (list: string[]) => list.map(modeOf)
  expect(asked(['R'])).toEqual(['roots'])
  expect(asked(['3', 'b3'])).toEqual(['thirds', 'thirds'])
  expect(asked(['5', 'b5', '#5'])).toEqual(['fifths', 'fifths', 'fifths'])
  expect(asked(['b7', '7', 'bb7', '6'])).toEqual(['sevenths', 'sevenths', 'sevenths', 'sevenths'])
  expect(asked(['9', '4', '11', '13', ''])).toEqual(['land', 'land', 'land', 'land', 'land'])
})

it('all that is carried along stands in the address, and it begins by itself', () => {
  expect(landingAt({ chart: 6, degree: 'b3', loop: '4-5', frets: '7-11', on: '5,2', tempo: 72 })).toEqual({
    name: 'practice',
    params: { id: 6 },
    query: { do: 'changes', mode: 'thirds', loop: '4-5', frets: '7-11', hold: 'strings:5,2', tempo: '72', play: 'yes' },
  })
  expect(landingAt({ mode: 'lick', with: 3 })).toMatchObject({ params: {}, query: { mode: 'lick', with: '3' } })
})
