import { describe, expect, it } from 'vitest'
import { metreOf } from '../music/metre'
import { beatsOf, readLoop, writeLoop, swingName } from './settings'

const twelve = metreOf({ beats: 4, bars: 12 })
const uneven = metreOf({ beats: 4, bars: 4, lengths: [4, 2, 5, 3] })

describe('loops as players write them', () => {
  it.each([
    ['5-8', { from: 16, to: 32 }],
    ['3', { from: 8, to: 12 }],
    ['4.3-5.2', { from: 14, to: 18 }],
    ['12.4', { from: 47, to: 48 }],
  ])('%s', (text, loop) => {
    const read = readLoop(text, twelve)
    expect(read.loop).toEqual(loop)
    expect(readLoop(writeLoop(loop, twelve), twelve).loop).toEqual(loop)
  })

  it.each([
    ['2', { from: 4, to: 6 }],
    ['2-3', { from: 4, to: 11 }],
    ['3.5-4.3', { from: 10, to: 14 }],
    ['1-4', { from: 0, to: 14 }],
  ])('%s in bars of other lengths', (text, loop) => {
    expect(readLoop(text, uneven).loop).toEqual(loop)
    expect(readLoop(writeLoop(loop, uneven), uneven).loop).toEqual(loop)
  })

  it.each([
    ['11-40', { from: 40, to: 48 }, '11-12'],
    ['0-2', { from: 0, to: 8 }, '1-2'],
    ['2.9-3', { from: 7, to: 12 }, '2.4-3.4'],
    ['8-5', { from: 16, to: 32 }, '5-8'],
  ])('%s is set to the nearest that can be played, and said', (text, loop, written) => {
    const read = readLoop(text, twelve)
    expect(read.loop).toEqual(loop)
    expect(read.said).toContain(`it is set to ${written}`)
  })

  it('refuses what is no loop', () => {
    expect(readLoop('all of it', twelve)).toEqual({ said: expect.stringContaining('is no loop') })
  })

  it('keeps a loop within the form, a beat long at least', () => {
    expect(beatsOf({ from: 90, to: 95 }, 48)).toEqual({ from: 47, to: 48 })
    expect(beatsOf({ from: 5, to: 5 }, 48)).toEqual({ from: 5, to: 6 })
  })
})

describe('swing', () => {
  it('is told as players call it', () => {
    const told = [0.5, 0.55, 0.6, 0.64, 2 / 3, 0.7, 0.75].map(swingName)
    expect(told).toEqual(['straight', 'hardly swung', 'lightly swung', 'almost triplets', 'triplets', 'hard', 'almost dotted']) // prettier-ignore
  })
})
