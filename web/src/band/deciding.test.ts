import { describe, expect, it } from 'vitest'
import { metreOf } from '../music/metre'
import {
  chorusesOf,
  cueAt,
  halved,
  lastChorus,
  loopName,
  loopTicks,
  moved,
  nextLoop,
  paceOf,
  placeOf,
  sameLoop,
} from './deciding'

describe('how much and how fast', () => {
  it('two or four choruses, about 128 bars', () => {
    expect([0, 8, 12, 24, 32, 33, 64, 512].map(chorusesOf)).toEqual([4, 4, 4, 4, 4, 2, 2, 2])
  })
  it('swing follows the tempo by tens from 130 on, unless it is set', () => {
    expect([60, 129, 134, 135, 204, 300].map((t) => paceOf(t, 0))).toEqual([130, 130, 130, 140, 200, 300])
    expect(paceOf(200, 60)).toBe(0)
  })
  it('half as fast, and back', () => {
    expect(halved(120, 0)).toEqual({ tempo: 60, back: 120 })
    expect(halved(60, 120)).toEqual({ tempo: 120, back: 0 })
  })
})

describe('how the band stops', () => {
  const twelve = metreOf({ beats: 4, bars: 12 })
  const at = (chorus: number, bar: number) => (chorus * 48 + bar * 4) * 960
  it('after the chorus in hand, or after the next where it is in its last two bars', () => {
    for (const chorus of [0, 1, 3])
      for (let bar = 0; bar < 12; bar++)
        expect(lastChorus(at(chorus, bar), 48, twelve), `${chorus}, ${bar}`).toBe(chorus + (bar < 10 ? 1 : 2))
    expect(lastChorus(at(0, 10) - 480, 48, twelve), 'a beat before them is too late').toBe(2)
  })
  it('after the first where it is counted in, and at its end where there is no form', () => {
    expect(lastChorus(-960, 48, twelve)).toBe(1)
    expect(lastChorus(100 * 960, 0, undefined)).toBe(1)
    for (const bars of [1, 2, 3]) expect(lastChorus(0, bars * 4, metreOf({ beats: 4, bars }))).toBe(bars < 3 ? 2 : 1)
  })
})

describe('where the band is', () => {
  it('a beat and a chorus, counted in before the first bar', () => {
    expect(placeOf(0, 48)).toEqual({ beat: 0, chorus: 0 })
    expect(placeOf(959, 48)).toEqual({ beat: 0, chorus: 0 })
    expect(placeOf(47 * 960 + 1, 48)).toEqual({ beat: 47, chorus: 0 })
    expect(placeOf(48 * 960, 48)).toEqual({ beat: 0, chorus: 1 })
    expect(placeOf(100 * 960, 48)).toEqual({ beat: 4, chorus: 2 })
    expect(placeOf(-1, 48)).toEqual({ beat: -1, chorus: 0 })
    expect(placeOf(100 * 960, 0)).toEqual({ beat: 100, chorus: 0 })
  })
  it('at a cue from its beat until the next', () => {
    const cues = [{ beat: 0, length: 4 }, { beat: 4, length: 2 }, { beat: 8, length: 4 }] // prettier-ignore
    expect([0, 3.9, 4, 5.9, 6, 8, 12].map((b) => cueAt(cues, b))).toEqual([0, 0, 1, 1, -1, 2, -1])
    expect(cueAt(cues, undefined)).toBe(-1)
  })
})

describe('a loop', () => {
  const chord = { from: 4, to: 8 }
  const change = { from: 6, to: 12 }
  const here = { chord, change }
  it('is in ticks; of a chart with dropped chords it goes round in two choruses', () => {
    expect(loopTicks(undefined, chord, 48, false)).toEqual({ from: 3840, to: 7680, other: undefined })
    expect(loopTicks(undefined, chord, 48, true)).toEqual({ from: 3840, to: 7680, other: 46080 })
    expect(loopTicks(undefined, undefined, 48, true)).toBeUndefined()
  })
  it('of what is auditioned is its own, else what is set where it has bars', () => {
    expect(loopTicks({ loop: change }, chord, 48, true)).toEqual({ from: 5760, to: 11520 })
    expect(loopTicks({ bars: [] }, chord, 48, true)).toEqual({ from: 3840, to: 7680 })
    expect(loopTicks({ bars: [] }, undefined, 48, true)).toBeUndefined()
    expect(loopTicks({}, chord, 48, true)).toBeUndefined()
  })
  it('turns from the form to the chord, to the change, and back', () => {
    expect(nextLoop(undefined, here)).toBe(chord)
    expect(nextLoop({ ...chord }, here)).toBe(change)
    expect(nextLoop({ ...change }, here)).toBeUndefined()
    expect(nextLoop({ from: 0, to: 16 }, here)).toBeUndefined()
    expect(nextLoop(undefined, undefined)).toBeUndefined()
    expect(nextLoop(chord, undefined)).toBeUndefined()
  })
  it('is called after what it holds', () => {
    expect([undefined, { ...chord }, { ...change }, { from: 0, to: 8 }].map((l) => loopName(l, here))).toEqual(['form', 'chord', 'change', 'bars']) // prettier-ignore
    expect(loopName(chord, undefined)).toBe('bars')
    expect([sameLoop(chord, { from: 4, to: 8 }), sameLoop(chord, { from: 4, to: 9 }), sameLoop(chord, { from: 3, to: 8 }), sameLoop(undefined, undefined)]).toEqual([true, false, false, true]) // prettier-ignore
  })
  it('moves as a whole and stays within the form', () => {
    expect(moved(chord, 12, 48)).toEqual({ from: 12, to: 16 })
    expect(moved(chord, 47, 48)).toEqual({ from: 44, to: 48 })
    expect(moved(change, 0, 48)).toEqual({ from: 0, to: 6 })
  })
})
