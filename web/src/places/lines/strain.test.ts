import { expect, it } from 'vitest'
import { enough } from './strain'

const bent = (n: number) => Array.from({ length: n }, (_, i) => ({ id: i, bend: 4 }))
const trilled = (n: number) => Array.from({ length: n }, (_, i) => ({ id: i, trill: 2 }))
const strain = { notes: Array.from({ length: 40 }, (_, i) => i), enough: 60 }

it('a drill is played until so many of its bends were bent, a pass at least', () => {
  for (let n = 1; n <= 40; n++) {
    const passes = enough(strain, bent(n), 'ornamented')!
    expect(passes).toBeGreaterThanOrEqual(1)
    expect(passes * n).toBeLessThanOrEqual(Math.max(60, n))
    expect((passes + 1) * n, 'and no less than may be').toBeGreaterThan(60)
  }
})
it('of a part only its own notes count', () => {
  expect(enough(strain, bent(40).slice(0, 6), 'ornamented')).toBe(10)
  expect(enough(strain, [{ id: 99, bend: 4 }], 'ornamented')).toBeUndefined()
})
it('has no end in its easier form, nor where nothing strains', () => {
  expect(enough(strain, bent(20), 'unbent')).toBeUndefined()
  expect(enough(strain, bent(20), 'plain')).toBe(3)
  expect(enough(strain, trilled(20), 'plain')).toBeUndefined()
  expect(enough(strain, trilled(20), 'unbent')).toBe(3)
  expect(enough(undefined, bent(20), 'ornamented')).toBeUndefined()
})
