import { describe, expect, it } from 'vitest'
import type { Target } from '../../api/client'
import { aimed, comingFrom, movesOf, numbered, positionOf, round, stepAt, stepsOf, targetAt, targetsOf, toggled } from './standing' // prettier-ignore

/* C7 | C7 F7 | C7 | G7, of four beats each; chords 0, 1 and 2. */
const change = (chord: number, beat = 1, length = 4) => ({ chord, beat, length })
const bars = [
  { changes: [change(0)] },
  { changes: [change(0, 1, 2), change(1, 3, 2)] },
  { changes: [change(0)] },
  { changes: [change(2)] },
]
const steps = stepsOf(bars)

describe('the steps of a form', () => {
  it('are its chords in order', () => {
    expect(steps.map((s) => [s.bar, s.change, s.chord, s.beat, s.length])).toEqual([
      [0, 0, 0, 1, 4],
      [1, 0, 0, 1, 2],
      [1, 1, 1, 3, 2],
      [2, 0, 0, 1, 4],
      [3, 0, 2, 1, 4],
    ])
    expect(stepsOf([])).toEqual([])
  })
  it('are found by bar and beat, else by bar, else the first', () => {
    expect(stepAt(steps, 2, 3)).toBe(2)
    expect(stepAt(steps, 2, 1)).toBe(1)
    expect(stepAt(steps, 2, 4)).toBe(1)
    expect(stepAt(steps, 4, 1)).toBe(4)
    expect(stepAt(steps, 99, 1)).toBe(0)
    expect(stepAt(steps, NaN, 1)).toBe(0)
    expect(stepAt([], 1, 1)).toBe(0)
  })
  it('tell the next three changes with the beats until they come, round the form', () => {
    expect(comingFrom(steps, 0).map((s) => [s.bar, s.chord, s.beats])).toEqual([
      [1, 1, 6],
      [2, 0, 8],
      [3, 2, 12],
    ])
    expect(comingFrom(steps, 4).map((s) => [s.bar, s.chord, s.beats])).toEqual([
      [0, 0, 4],
      [1, 1, 10],
      [2, 0, 12],
    ])
    expect(comingFrom(stepsOf([{ changes: [change(0)] }, { changes: [change(0)] }]), 0)).toEqual([])
    expect(comingFrom([], 0)).toEqual([])
  })
  it('go round, into the next chorus and the one before', () => {
    expect(round(2, 5, 0, 2)).toEqual({ step: 2, chorus: 0 })
    expect(round(5, 5, 0, 2)).toEqual({ step: 0, chorus: 1 })
    expect(round(5, 5, 1, 2)).toEqual({ step: 0, chorus: 0 })
    expect(round(-1, 5, 0, 2)).toEqual({ step: 4, chorus: 1 })
    expect(round(-1, 5, 1, 2)).toEqual({ step: 4, chorus: 0 })
    expect(round(-11, 5, 0, 1)).toEqual({ step: 4, chorus: 0 })
  })
})

describe('the position', () => {
  const at = (low: number, number: number, more = {}) => ({ low, high: low + 4, number, ...more })
  const positions = [at(0, 1, { nut: true }), at(3, 2, { shape: 'C' }), at(7, 3, { shape: 'E' }), at(12, 1), at(15, 2, { octave: true })] // prettier-ignore
  const own = [...positions, at(5, 0)]
  it('is the player’s own, the one asked for, the nearest one, or the usual one', () => {
    expect(positionOf(own, undefined, true)).toBe(5)
    expect(positionOf(own, { low: 12, high: 16 }, true)).toBe(5)
    expect(positionOf(positions, undefined, true)).toBe(0)
    expect(positionOf(positions, { low: 12, high: 16 }, false)).toBe(3)
    expect(positionOf(positions, { low: 12, high: 17 }, false)).toBe(3)
    expect(positionOf(positions, { low: 5, high: 6 }, false)).toBe(1)
    expect(positionOf(positions, { low: 99, high: 99 }, false)).toBe(4)
    expect(positionOf(positions, undefined, false)).toBe(2)
    expect(positionOf([], undefined, false)).toBe(0)
    expect(positionOf([], { low: 1, high: 2 }, false)).toBe(0)
  })
  it('of a number is its usual one, and again the same in another octave', () => {
    expect(numbered(positions, 1, 2)).toBe(0) // the open one first
    expect(numbered(positions, 1, 3)).toBe(0)
    expect(numbered(positions, 1, 0)).toBe(3)
    expect(numbered(positions, 2, 0)).toBe(1)
    expect(numbered(positions, 2, 1)).toBe(4)
    expect(numbered(positions, 3, 2)).toBe(2)
    expect(numbered(positions, 2, -1)).toBe(1)
    expect(numbered(positions, 9, 0)).toBeUndefined()
    expect(numbered([at(0, 1, { nut: true })], 1, 5)).toBe(0)
  })
})

describe('the thread', () => {
  const target = (step: number, chorus?: number) => ({ step, chorus }) as Target
  const thread = { targets: [target(0), target(2), target(0, 1), target(4, 1)] }
  it('has a target for each step of a chorus, or none', () => {
    expect(targetsOf(5, thread, 0).map((t) => t && [t.step, t.chorus])).toEqual([[0, undefined], undefined, [2, undefined], undefined, undefined]) // prettier-ignore
    expect(targetsOf(5, thread, 1).map((t) => t?.step)).toEqual([0, undefined, undefined, undefined, 4])
    expect(targetsOf(2, undefined, 0)).toEqual([undefined, undefined])
  })
  it('comes next in this chorus, and past the end of the form in the next', () => {
    expect(targetAt(thread, 2, 1, 0, 2)).toBe(thread.targets[1])
    expect(targetAt(thread, 0, 4, 0, 2)).toBe(thread.targets[2])
    expect(targetAt(thread, 0, 4, 1, 2)).toBe(thread.targets[0])
    expect(targetAt(thread, 0, 0, 0, 1)).toBe(thread.targets[0])
    expect(targetAt(thread, 4, 2, 0, 2)).toBeUndefined()
    expect(targetAt(undefined, 0, 0, 0, 1)).toBeUndefined()
  })
})

describe('what is decided', () => {
  it('moves that lie nowhere in a position are left out', () => {
    const map = { changes: [{ steps: [{ name: 'a' }, { name: 'b' }] }] } as never
    const places = [[[], ['there']]] as never
    expect(movesOf(map, places, 0)).toEqual([{ name: 'b', places: ['there'] }])
    expect(movesOf(map, places, 1)).toEqual([])
    expect(movesOf(map, undefined, 0)).toEqual([])
    expect(movesOf(undefined, undefined, -1)).toEqual([])
  })
  it('a name is turned on and off', () => {
    expect(toggled('', 'tones')).toBe('tones')
    expect(toggled('tones', 'bends')).toBe('tones,bends')
    expect(toggled('tones,bends', 'tones')).toBe('bends')
    expect(toggled('tones', 'tones')).toBeUndefined()
  })
  it('the band goes to a beat, or its loop a stretch on or back', () => {
    expect(aimed(1, undefined, 48, 20)).toBe(20)
    expect(aimed(3, { from: 4, to: 8 }, 48, 20)).toBe(20)
    expect(aimed(1, { from: 4, to: 8 }, 48, 20)).toBe(8)
    expect(aimed(1, { from: 44, to: 48 }, 48, 20)).toBe(0)
    expect(aimed(-1, { from: 8, to: 12 }, 48, 20)).toBe(4)
    expect(aimed(-1, { from: 0, to: 4 }, 48, 20)).toBe(0)
  })
})
