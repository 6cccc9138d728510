import { describe, expect, it } from 'vitest'
import { holdsAt, readHolds, writeHolds } from './holding'

describe('limits', () => {
  it('stand in the address, as they are chosen or to be drawn', () => {
    for (const text of ['', 'frets', 'frets;strings:1-3', 'degrees:root,third;few:2;stay']) expect(writeHolds(readHolds(text))).toBe(text) // prettier-ignore
    expect([...readHolds('frets;degrees:root,third')]).toEqual([['frets', ''], ['degrees', 'root,third']]) // prettier-ignore
    expect(writeHolds(readHolds(';frets:;'))).toBe('frets')
  })
  it('are those of now, and the next that come', () => {
    const hold = (kind: string, from: number, to: number) => ({ kind, says: kind, from, to })
    const list = [hold('a', 0, 100), hold('b', 0, 100), hold('c', 100, 200)]
    expect(holdsAt(list, 0).now.map((h) => h.kind)).toEqual(['a', 'b'])
    expect(holdsAt(list, 99)).toMatchObject({ at: 100, next: [{ kind: 'c' }] })
    expect(holdsAt(list, 100)).toEqual({ now: [list[2]], next: [], at: Infinity })
    const alike = [...list, hold('c', 200, 300)]
    expect(holdsAt(alike, 150)).toMatchObject({ at: 200, next: [] }) // it stays as it is
    expect(holdsAt([], 5)).toEqual({ now: [], next: [], at: Infinity })
  })
})
