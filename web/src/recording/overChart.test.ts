/* Where a chart lies in a recording: whatever bar it begins with, however its tempo drifts, however long it is. */
import { expect, test } from 'vitest'
import { turnOf } from '../band/companion'
import { quarter } from '../api/facts'
import { dice } from '../document/dice'
import { metreOf } from '../music/metre'
import { secondOf } from './inHand'
import { muchOf, overChart } from './overChart'

const even = (tempo: number, from = 0.5, beats = 400) => [{ beat: 0, at: from }, { beat: beats, at: from + (beats * 60) / tempo }] // prettier-ignore

test('twelve bars from the top, three times', () => {
  const twelve = metreOf({ beats: 4, bars: 12 })
  expect(overChart({ anchors: even(120), first: 0 }, twelve, 0.5 + 3 * 24)).toEqual({ top: 0, choruses: 3, beats: 144, tempo: expect.closeTo(120, 6) }) // prettier-ignore
  // The last beat rings out, or is cut: the chorus is there.
  expect(overChart({ anchors: even(120), first: 0 }, twelve, 72)!.choruses).toBe(3)
  expect(overChart({ anchors: even(120), first: 0 }, twelve, 71.4)!.choruses).toBe(2)
})

test('it begins in another bar than the first, or before it', () => {
  const uneven = metreOf({ beats: 4, bars: 3, lengths: [4, 2, 4] })
  expect(overChart({ anchors: even(60), first: 1 }, uneven, 60)!.top).toBe(6)
  expect(overChart({ anchors: even(60), first: 4 }, uneven, 60)!.top).toBe(6) // round once more
  expect(overChart({ anchors: even(60), first: -2 }, uneven, 60)!.top).toBe(8) // two bars of intro
})

test('of less than a chorus the bars are told that are there; of nothing nothing', () => {
  const twelve = metreOf({ beats: 4, bars: 12 })
  expect(overChart({ anchors: even(60), first: 0 }, twelve, 0.5 + 18)).toMatchObject({ choruses: 1, beats: 18 })
  expect(muchOf({ choruses: 1, beats: 18 }, twelve)).toBe('its first 4 bars')
  expect(muchOf({ choruses: 1, beats: 4 }, twelve)).toBe('its first bar')
  expect(muchOf({ choruses: 1, beats: 2 }, twelve)).toBe('less than a bar of it')
  expect(muchOf({ choruses: 1, beats: 47.2 }, twelve)).toBe('one chorus of it')
  expect(muchOf({ choruses: 3, beats: 144 }, twelve)).toBe('3 choruses of it')
  expect(overChart({ anchors: even(60), first: 0 }, twelve, 0.9)).toBeUndefined()
  expect(overChart({ anchors: [{ beat: 0, at: 1 }], first: 0 }, twelve, 100)).toBeUndefined()
})

test('whatever is drawn, all of it lies in the recording, and no whole chorus is left out', () => {
  const roll = dice(11)
  const draw = (from: number, to: number) => from + roll.next() * (to - from)
  const whole = (from: number, to: number) => Math.floor(draw(from, to + 1))
  let known = 0
  for (let n = 0; n < 3000; n++) {
    const [tempo, from, first, seconds] = [whole(30, 300), draw(0, 40), whole(-20, 60), draw(1, 4000)]
    const lengths = Array.from({ length: whole(1, 24) }, () => whole(1, 12))
    const metre = metreOf({ beats: 4, bars: lengths.length, lengths })
    const anchors = even(tempo, from)
    const c = overChart({ anchors, first }, metre, seconds)
    if (!c) continue
    known++
    const [begins, ends] = [secondOf(anchors, c.top)!, secondOf(anchors, c.top + c.choruses * metre.length)!]
    const beat = 60 / tempo
    expect(begins).toBeGreaterThanOrEqual(-0.05)
    const until = Math.min(seconds, begins + 1200)
    expect(secondOf(anchors, c.top + c.beats)!).toBeLessThanOrEqual(until + 1e-6)
    if (c.beats + 1 >= metre.length) expect(ends).toBeLessThanOrEqual(until + beat * 1.01)
    expect(c.choruses === 32 || ends + (metre.length - 1) * beat > until - 1e-6).toBe(true)
    expect(c.tempo).toBeCloseTo(tempo, 3)
  }
  expect(known).toBeGreaterThan(1500)
})

test('where the clock turns: out of the count-in, round a loop, at the end of all', () => {
  const at = { frame: 0, framesPerTick: 1, tempo: 100, pass: 0 }
  const loop = { from: 4 * quarter, to: 8 * quarter }
  const end = 48 * quarter
  expect(turnOf({ ...at, tick: -4 * quarter }, 0, end)).toEqual({ at: 0, to: 0 })
  expect(turnOf({ ...at, tick: -4 * quarter }, 8 * quarter, end)).toEqual({ at: 0, to: 8 * quarter })
  expect(turnOf({ ...at, tick: -4 * quarter, loop }, 8 * quarter, end)).toEqual({ at: 0, to: loop.from })
  expect(turnOf({ ...at, tick: 5 * quarter, loop }, 0, end)).toEqual({ at: loop.to, to: loop.from })
  expect(turnOf({ ...at, tick: 12 * quarter, loop }, 0, end)).toEqual({ at: end, to: loop.from })
  expect(turnOf({ ...at, tick: 0 }, 0, end)).toEqual({ at: end, to: 0 })
})
