import { expect, it } from 'vitest'
import { quarter } from '../../api/facts'
import { metreOf } from '../../music/metre'
import { loopOfChange } from './useLanded'

const bars = (text: string) => {
  let at = -4
  return text.split('|').map((bar) => {
    at += 4
    const chords = bar.trim().split(' ')
    return chords.map((chord, i) => ({ at: (at + (i * 4) / chords.length) * quarter, chord }))
  })
}
const metre = (n: number) => metreOf({ beats: 4, bars: n })

it('a change is the bar that it leaves and the bar that it comes to', () => {
  const blues = bars('D7|D7|D7|D7|G7|G7|D7|D7|A7|G7|D7|A7')
  expect(loopOfChange(blues, 'D7,G7', metre(12))).toEqual({ from: 12, to: 20 })
  expect(loopOfChange(blues, 'G7,D7', metre(12))).toEqual({ from: 20, to: 28 })
  expect(loopOfChange(blues, 'A7,G7', metre(12))).toEqual({ from: 32, to: 40 })
  expect(loopOfChange(blues, 'D7,A7', metre(12))).toEqual({ from: 28, to: 36 })
})

it('chords of half a bar are not spread over what lies beside them', () => {
  expect(loopOfChange(bars('C|A7 D7|G7'), 'A7,D7', metre(3))).toEqual({ from: 4, to: 8 })
  expect(loopOfChange(bars('C|A7 D7|G7'), 'D7,G7', metre(3))).toEqual({ from: 6, to: 12 })
})

it('what the chart does not have goes nowhere', () => {
  expect(loopOfChange(bars('C|G7'), 'A7,D7', metre(2))).toBeUndefined()
  expect(loopOfChange(bars('C|G7'), 'G7,C', metre(2))).toBeUndefined()
  expect(loopOfChange([], ',', metre(1))).toBeUndefined()
})
