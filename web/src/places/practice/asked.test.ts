import { describe, expect, it } from 'vitest'
import type { Call } from '../../api/client'
import { ask, end, inTime, isAsked, name, play, press, uncover, wanted } from './asked'

const tone = (degree: string, midi: number, string: number, fret: number) => ({ degree, midi, note: degree, places: [{ string, fret }, { string: string + 1, fret: fret + 5 }] }) // prettier-ignore
/* The third and the fifth of C7, then its root. */
const call = { chord: 'C7', says: 'third, fifth, root', notes: [tone('3', 64, 2, 5), tone('5', 67, 1, 3), tone('R', 72, 1, 8)] } as unknown as Call // prettier-ignore
const bend = { chord: 'C7', says: 'how far', notes: [], answer: '2' } as unknown as Call
const timed = { ...call, gap: 500, give: 60 }

describe('a call', () => {
  it('is covered and open at first, one without tones is not covered', () => {
    const a = ask(call, 1000)
    expect([a.done, a.covered, a.found, a.slipped, a.ended]).toEqual([0, true, [], false, undefined])
    expect(wanted(a)?.degree).toBe('3')
    expect(ask(bend, 0).covered).toBe(false)
    expect(wanted(undefined)).toBeUndefined()
  })
  it('is right when every tone is named in its order, and tells how long it took', () => {
    let a = name(ask(call, 1000), '3', 1500)
    expect([a.done, a.found, wanted(a)?.degree, a.ended]).toEqual([1, [{ string: 2, fret: 5 }], '5', undefined])
    a = name(name(a, '5', 2000), 'R', 4200)
    expect(a.ended).toEqual({ how: 'right', took: 3200 })
    expect([a.done, a.covered]).toEqual([3, false])
    expect(name(a, '3', 9000)).toBe(a)
  })
  it('shows what was named instead until the next answer, and is late when it is complete', () => {
    const wrong = name(ask(call, 0), 'R', 10)
    expect([wrong.done, wrong.slip, wrong.slipped]).toEqual([0, 'R', true])
    const next = name(wrong, '3', 20)
    expect([next.done, next.slip, next.slipped]).toEqual([1, undefined, true])
    expect(name(name(next, '5', 30), 'R', 40).ended).toEqual({ how: 'late', took: 40 })
  })
  it('is shown when it was uncovered before its end, slips or not', () => {
    const open = uncover(name(ask(call, 0), 'b7', 5))
    expect(open.covered).toBe(false)
    expect(name(name(name(open, '3', 1), '5', 2), 'R', 3).ended?.how).toBe('shown')
  })
  it('of a bend is answered by how far', () => {
    const wrong = name(ask(bend, 0), '1', 5)
    expect([wrong.slip, wrong.ended]).toEqual(['1', undefined])
    expect(name(wrong, '2', 9).ended).toEqual({ how: 'late', took: 9 })
    expect(name(ask(bend, 0), '2', 9).ended).toEqual({ how: 'right', took: 9 })
  })
  it('is answered on the neck at any place of the tone, and shows the place that is not', () => {
    const a = press(ask(call, 0), { string: 3, fret: 10 }, 5)
    expect([a.done, a.found]).toEqual([1, [{ string: 3, fret: 10 }]])
    const wrong = press(a, { string: 3, fret: 10 }, 6)
    expect([wrong.done, wrong.slip]).toEqual([1, { string: 3, fret: 10 }])
    expect(press(a, { string: 1, fret: 10 }, 6).slipped).toBe(true)
    expect(press(a, { string: 3, fret: 3 }, 6).slipped).toBe(true)
    const over = end(a, 'passed', 9)
    expect(press(over, { string: 1, fret: 3 }, 10)).toBe(over)
    const without = ask(bend, 0)
    expect(press(without, { string: 1, fret: 3 }, 10)).toBe(without)
  })
  it('is answered by playing within a third of a half step or so, in the rhythm asked for', () => {
    const a = ask(timed, 0)
    expect([isAsked(a, 64), isAsked(a, 64.39), isAsked(a, 63.61), isAsked(a, 64.5), isAsked(undefined, 64)]).toEqual([true, true, true, false, false]) // prettier-ignore
    const all = (at: number[]) => play(play(play(a, 64, at[0]!, 1), 67.2, at[1]!, 2), 71.8, at[2]!, 30)
    expect(all([0, 500, 1000]).ended).toEqual({ how: 'right', took: 30 })
    expect(all([0, 560, 1000]).ended?.how).toBe('right')
    expect(all([0, 561, 1000]).ended?.how).toBe('uneven')
    expect(all([0, 500, 1070]).ended?.how).toBe('uneven')
    const wrong = play(a, 60, 0, 0)
    expect([wrong.slip, wrong.slipped, wrong.done, wrong.played]).toEqual([undefined, true, 0, []])
    const over = end(a, 'skipped', 1)
    expect(play(over, 64, 0, 2)).toBe(over)
  })
  it('that was let go has no time, and ends once', () => {
    expect(end(ask(call, 0), 'passed', 99).ended).toEqual({ how: 'passed', took: undefined })
    expect(end(ask(call, 0), 'skipped', 99).ended).toEqual({ how: 'skipped', took: undefined })
    const over = end(ask(call, 0), 'shown', 99)
    expect(over.ended).toEqual({ how: 'shown', took: 99 })
    expect(end(over, 'passed', 200)).toBe(over)
  })
  it('in any order takes each of its places once, wherever one begins', () => {
    const one = (string: number, fret: number, midi: number) => ({
      degree: 'R',
      note: 'C',
      midi,
      places: [{ string, fret }],
    })
    const every = { ...call, degree: 'R', free: true, sought: true, notes: [one(5, 3, 48), one(3, 5, 60), one(4, 10, 60)] } as unknown as Call // prettier-ignore
    let a = press(ask(every, 0), { string: 3, fret: 5 }, 1)
    expect([a.done, a.found, a.notes.map((n) => n.midi)]).toEqual([1, [{ string: 3, fret: 5 }], [60, 48, 60]])
    expect(press(a, { string: 3, fret: 5 }, 2)).toBe(a) // found already: no slip
    expect(name(a, 'R', 2)).toBe(a)
    a = press(a, { string: 5, fret: 3 }, 2)
    const wrong = press(a, { string: 5, fret: 4 }, 3)
    expect([wrong.slipped, wrong.done, wrong.first]).toEqual([true, 2, { asked: 'R', took: { string: 5, fret: 4 } }])
    expect(press(a, { string: 4, fret: 10 }, 9).ended).toEqual({ how: 'right', took: 9 })
    // Played, a sound that has two places is played twice.
    a = play(play(ask(every, 0), 60, 0, 1), 60, 500, 2)
    expect([a.done, a.slipped, isAsked(a, 48), isAsked(a, 60)]).toEqual([2, false, true, false])
    expect(play(a, 60, 600, 3)).toBe(a)
    expect(play(a, 50, 600, 3).slipped).toBe(true)
    expect(play(a, 48, 900, 4).ended).toEqual({ how: 'right', took: 4 })
  })
  it('in an order takes none that comes later', () => {
    const a = press(ask(call, 0), { string: 1, fret: 3 }, 5)
    expect([a.done, a.slipped]).toEqual([0, true])
    expect(a.notes).toEqual(call.notes)
  })
  it('has no rhythm where none was asked for', () => {
    expect(inTime([0, 10, 9999], call)).toBe(true)
    expect(inTime([0, 500], { gap: 500 } as Call)).toBe(true)
    expect(inTime([0, 501], { gap: 500 } as Call)).toBe(false)
  })
})
