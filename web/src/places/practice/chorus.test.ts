import { describe, expect, it } from 'vitest'
import { apart, chorusAt, Counted, since, withOne, type Chorus } from './chorus'

const form = 12 * 4 * 960
describe('where a tick lies', () => {
  it('in a chorus of a pass, from its first bar', () => {
    expect(chorusAt({ tick: 0, pass: 0 }, form)).toEqual({ tick: 0, pass: 0 })
    expect(chorusAt({ tick: form - 1, pass: 0 }, form)).toEqual({ tick: form - 1, pass: 0 })
    expect(chorusAt({ tick: form, pass: 0 }, form)).toEqual({ tick: 0, pass: 1 })
    expect(chorusAt({ tick: 3 * form + 960, pass: 2 }, form)).toEqual({ tick: 960, pass: 2 * 64 + 3 })
  })
  it('just before the first bar it is the first chorus’s, before that nobody’s', () => {
    expect(chorusAt({ tick: -960, pass: 1 }, form)).toEqual({ tick: -960, pass: 64 })
    expect(chorusAt({ tick: -961, pass: 1 }, form)).toBeUndefined()
    expect(chorusAt(undefined, form)).toBeUndefined()
    expect(chorusAt({ tick: 0, pass: 0 }, 0)).toBeUndefined()
  })
  it('what has no form is one chorus for ever', () => {
    expect(chorusAt({ tick: 1e9, pass: 3 }, Infinity)).toEqual({ tick: 1e9, pass: 192 })
  })
})

describe('what does not count is said', () => {
  const of = (simulated: boolean, partial?: boolean) => ({ simulated, free: { partial } }) as Pick<Chorus, 'simulated' | 'free'> // prettier-ignore
  it('of a simulated player, of one who stands in, and of a part', () => {
    expect(apart(of(true), false)).toContain('nothing of it counts')
    expect(apart(of(true), true)).toContain('counts as yours')
    expect(apart(of(false, true), true)).toContain('as far as it was played')
    expect(apart(of(false), true)).toBeUndefined()
  })
})

describe('choruses are counted', () => {
  it('one after another, whatever they are called, and each once', () => {
    const c = new Counted()
    expect([5, 6, 64, 5, 64].map((p) => c.count(p))).toEqual([0, 1, 2, 0, 2])
    expect([0, 1, 2, 9].map((n) => c.chorusOf(n))).toEqual([5, 6, 0, 0])
    c.clear()
    expect(c.count(64)).toBe(0)
  })
  it('and the sound of the last two stays', () => {
    const one = (pass: number) => ({ pass, sound: Promise.resolve(undefined) }) as unknown as Chorus
    const all = [0, 1, 2, 3].reduce<Chorus[]>((list, pass) => withOne(list, one(pass)), [])
    expect(all.map((c) => [c.pass, !!c.sound])).toEqual([[0, false], [1, false], [2, true], [3, true]]) // prettier-ignore
  })
  it('what the band plays is told from where the chorus begins', () => {
    expect(since(960, [[960, 40], [1440, 47]])).toEqual([[0, 40], [480, 47]]) // prettier-ignore
  })
})
