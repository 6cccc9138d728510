import { describe, expect, it } from 'vitest'
import { maxTempo } from '../../api/facts'
import { course, keyOf, learned, nameOf, rungOf, type Learned } from './parts'

describe('a line in parts', () => {
  it('is learned as 1, 2, 1–2, 3, 1–3, to the whole', () => {
    expect(course(0)).toEqual([])
    expect(course(1).map(keyOf)).toEqual(['1-1'])
    expect(course(4).map(keyOf)).toEqual(['1-1', '2-2', '1-2', '3-3', '1-3', '4-4', '1-4'])
    expect(course(3).map(nameOf)).toEqual(['part 1', 'part 2', 'parts 1 to 2', 'part 3', 'parts 1 to 3'])
  })
  it('goes on after three clean passes, each stretch on its rung; joined parts begin at the slower one', () => {
    const of = course(2)
    let l: Learned = { step: 0, rungs: {} }
    l = learned(l, of, true, 80)
    expect(l).toEqual({ step: 0, rungs: { '1-1': { tempo: 80, row: 1 } } })
    for (const clean of [true, true]) l = learned(l, of, clean, 80)
    expect(l).toEqual({ step: 1, rungs: { '1-1': { tempo: 85, row: 0 } } })
    l = learned(l, of, false, 80)
    expect([l.step, l.rungs['2-2']]).toEqual([1, { tempo: 75, row: 0 }]) // slower, and not given up
    for (const clean of [true, true, true]) l = learned(l, of, clean, 80)
    expect([l.step, l.rungs['2-2']]).toEqual([2, { tempo: 80, row: 0 }])
    expect(rungOf(l, [0, 1], 120)).toEqual({ tempo: 80, row: 0 }) // of 85 and 80
    for (const clean of [true, false, true, true, true, true, true, true]) l = learned(l, of, clean, 80)
    expect([l.step, l.rungs['1-2']!.tempo]).toEqual([2, 85]) // the whole stays, and climbs
  })
  it('climbs half as quick again and no further', () => {
    let l: Learned = { step: 0, rungs: { '1-1': { tempo: 118, row: 2 } } }
    l = learned(l, course(1), true, 80)
    expect(l.rungs['1-1']!.tempo).toBe(120)
    for (const clean of Array(6).fill(true)) l = learned(l, course(1), clean, 80)
    expect(l.rungs['1-1']!.tempo).toBe(120)
  })
  it('goes on at the quickest tempo too', () => {
    let l: Learned = { step: 0, rungs: { '1-1': { tempo: maxTempo, row: 2 } } }
    l = learned(l, course(2), true, 80)
    expect([l.step, l.rungs['1-1']!.tempo]).toEqual([1, maxTempo])
    expect(learned(l, [], true, 80)).toBe(l)
  })
})
