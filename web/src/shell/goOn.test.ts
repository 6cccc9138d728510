import { describe, expect, it } from 'vitest'
import { onward } from './useGoOn'

describe('what was practised last', () => {
  it.each([
    ['/lines/4', '/lines/4?play=yes&tempo=96'],
    ['/practice/6?do=changes&mode=land', '/practice/6?do=changes&mode=land&play=yes&tempo=96'],
    ['/practice/6?do=changes&play=no&tempo=80', '/practice/6?do=changes&play=yes&tempo=96'],
  ])('%s goes on', (path, want) => expect(onward({ title: 'x', path, tempo: 96 })).toBe(want))
})
