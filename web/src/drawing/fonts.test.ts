import { expect, it } from 'vitest'
import { has, ranges } from './fonts'

it('reads the letters a face is for', () => {
  expect(ranges('U+0-FF, U+131, U+4??,U+2000-206f')).toEqual([
    [0, 0xff],
    [0x131, 0x131],
    [0x400, 0x4ff],
    [0x2000, 0x206f],
  ])
  expect(ranges('')).toEqual([])
  expect(has('U+0-FF', 'C7')).toBe(true)
  expect(has('U+0-FF', '♭')).toBe(false)
  expect(has('U+1D100-1D1FF', '𝄞')).toBe(true)
  expect(has('', '♭')).toBe(true)
})
