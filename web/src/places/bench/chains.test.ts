import { expect, it } from 'vitest'
import { aloud, kept, moved, waysOf, type Chain } from './chains'

const tone = (string: number, fret: number, move = 0) => ({ string, fret, move, degree: '3', note: 'E', midi: 64 })
const chain = { links: [{ chord: 'C7', tones: [tone(3, 9), tone(4, 8)] }, { chord: 'F7', tones: [tone(3, 8, -1), tone(4, 8)] }, { chord: 'C7', tones: [tone(3, 9, 1), tone(4, 8)] }] } as unknown as Chain // prettier-ignore

it('leads each voice from chord to chord, and begins where it is', () => {
  const ways = waysOf(chain).map((w) => [w.from.string, w.from.fret, w.to.string, w.to.fret])
  expect(ways).toEqual([[3, 9, 3, 9], [4, 8, 4, 8], [3, 9, 3, 8], [4, 8, 4, 8], [3, 8, 3, 9], [4, 8, 4, 8]]) // prettier-ignore
})
it('tells how far a voice goes', () => {
  expect([0, 1, -1, 2, -2, 3, -5].map(moved)).toEqual(['stays', '½↑', '½↓', '1↑', '1↓', '1½↑', '2½↓'])
})
it('counts what stays, the first chord aside', () => {
  expect(kept(chain)).toBe(2)
  expect(kept({ links: [] } as unknown as Chain)).toBe(0)
})
it('is read out', () => {
  const short = { links: chain.links.slice(0, 2).map((l) => ({ ...l, tones: l.tones.slice(0, 1) })) } as Chain
  expect(aloud(short, (m) => `<${m}>`)).toBe('<C7>: <3>, <E>, string 3 fret 9; then <F7>: <3>, <E>, string 3 fret 8')
})
