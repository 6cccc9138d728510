/* Beats as they fall within a part of a recording. */
import { expect, test } from 'vitest'
import { beatAt, later, within } from './inHand'

test('the same beats fall at the same moments, counted from where the part begins', () => {
  const anchors = [{ beat: 0, at: 2 }, { beat: 40, at: 22 }, { beat: 100, at: 56 }] // prettier-ignore
  for (const from of [0, 1, 10, 21.9, 22, 30, 55, 60, 400]) {
    const part = within(anchors, from)
    expect(part.length).toBeGreaterThan(1)
    for (const a of part) expect(a.at).toBeGreaterThanOrEqual(0)
    // Behind the last anchor that lies before the part, and beyond all of them, beats are where they were.
    for (const at of [from + 60, from + 100]) expect(beatAt(part, at - from)).toBeCloseTo(beatAt(anchors, at)!, 6)
  }
  expect(within([], 10)).toEqual([])
  expect(within(anchors.slice(0, 1), 10)).toHaveLength(1)
  expect(later(anchors, 5).map((a) => a.at)).toEqual([7, 27, 61])
})
