import { expect, it } from 'vitest'
import { tonight } from './tonight'

const row = (kind: 'call' | 'take' | 'rung' | 'skip', minute: number, asked: number, right: number, tempo = 0) => ({ at: new Date(Date.UTC(2026, 2, 2, 18, minute)).toISOString(), kind, asked, right, seconds: 3, title: 'Low Water', tempo }) // prettier-ignore
const begun = '2026-03-02T18:00:00Z'

it('calls, changes and rungs since the plan was begun are counted, and nothing before', () => {
  const rows = [row('call', -5, 1, 1), row('call', 1, 1, 1), row('call', 2, 1, 0), row('take', 3, 9, 6), row('take', 4, 9, 8), row('rung', 5, 0, 0, 84), row('skip', 6, 0, 0)] // prettier-ignore
  expect(tonight(rows, begun, 20)).toEqual([
    '1 of 2 calls right at once',
    '14 of 18 changes met on time in 2 choruses and lines',
    '0 of 20 planned minutes sounded',
    'Low Water went up to 84',
  ])
})
it('of one thing it is one, and of nothing there is nothing to say', () => {
  expect(tonight([{ ...row('call', 1, 1, 1), seconds: 70 }], begun, 1)).toEqual([
    '1 of 1 call right at once',
    '1 of 1 planned minute sounded',
  ])
  expect(tonight([], begun, 20)).toEqual([])
  expect(tonight([row('take', 1, 0, 0)], begun, 20)).toEqual([])
})
