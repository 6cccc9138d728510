import { expect, it } from 'vitest'
import { Awake } from './awake'

it('a machine that runs never slept, however it is asked', () => {
  const awake = new Awake()
  expect(awake.slept(5_000_000)).toBe(false)
  for (let now = 5_000_000; now < 5_200_000; now += 16 + (now % 9000)) expect(awake.slept(now)).toBe(false)
})
it('one that did is told of once, and what was before it began to be asked does not count', () => {
  const awake = new Awake()
  awake.begin(0)
  expect(awake.slept(9_000)).toBe(false)
  expect(awake.slept(20_000)).toBe(true)
  expect(awake.slept(20_016)).toBe(false)
  awake.begin(99_000)
  expect(awake.slept(99_500)).toBe(false)
})
it('a clock that goes back is no sleep', () => {
  const awake = new Awake()
  awake.begin(1_000_000)
  expect(awake.slept(0)).toBe(false)
  expect(awake.slept(500)).toBe(false)
})
