import { expect, it } from 'vitest'
import { Sides } from './sides'

const rate = 48000
const chunk = 128
const noise = (loud: number, seed: number) => {
  let x = seed
  return Float32Array.from({ length: rate }, () => ((x = (x * 16807) % 2147483647) / 2147483647 - 0.5) * 2 * loud)
}
/** What is heard of two sides, and the root mean square of its last half second. */
function heard(left: Float32Array, right: Float32Array | undefined) {
  const sides = new Sides(rate)
  const out = new Float32Array(rate)
  for (let at = 0; at + chunk <= rate; at += chunk)
    sides.mix(
      [left, right].flatMap((s) => (s ? [s.subarray(at, at + chunk)] : [])),
      out,
      at,
    )
  let sum = 0
  for (const s of out.subarray(rate / 2)) sum += s * s
  return { sides, out, level: Math.sqrt(sum / (rate / 2)) }
}
const loud = noise(0.5, 7)
const alone = heard(loud, undefined).level

it('one side is as it is, and two that are alike are as one', () => {
  expect(heard(loud, undefined).out.subarray(0, 1000)).toEqual(loud.subarray(0, 1000))
  expect(heard(loud, loud).level).toBeCloseTo(alone, 6)
  expect(heard(loud, loud).sides.alone).toBeUndefined()
})
it('of a side that is dead, left or right, silent or humming, nothing is lost of the other', () => {
  for (const dead of [new Float32Array(rate), noise(0.005, 3)]) {
    expect(heard(dead, loud).level).toBeCloseTo(alone, 3)
    expect(heard(dead, loud).sides.alone).toBe(1)
    expect(heard(loud, dead).level).toBeCloseTo(alone, 3)
    expect(heard(loud, dead).sides.alone).toBe(0)
  }
})
it('two sides that differ are both heard, and in silence neither is dead', () => {
  expect(heard(loud, noise(0.2, 5)).sides.alone).toBeUndefined()
  expect(heard(new Float32Array(rate), new Float32Array(rate)).sides.alone).toBeUndefined()
})
it('what is plugged in later is heard', () => {
  const late = new Float32Array(rate)
  late.set(loud.subarray(0, rate / 4), (rate * 3) / 4)
  const { sides } = heard(late, loud)
  expect(sides.alone).toBeUndefined()
})
it('no side at all is silence', () => {
  const out = new Float32Array(4)
  new Sides(rate).mix([], out, 0)
  expect([...out]).toEqual([0, 0, 0, 0])
})
