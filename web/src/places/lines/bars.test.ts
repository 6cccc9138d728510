import { describe, expect, it } from 'vitest'
import { readBars } from './bars'

describe('bars as they are listed', () => {
  it.each([
    ['1', [1]],
    ['1 5 9-10', [1, 5, 9, 10]],
    ['9–10, 1;5', [1, 5, 9, 10]],
    ['3 3 2-4', [2, 3, 4]],
    ['12', [12]],
  ])('reads %s', (text, want) => expect(readBars(text, 12)).toEqual({ bars: want, said: undefined }))
  it.each(['0', '13', '5-3', 'x', '1.5', '-2', '1 99', '123456'])('says what is wrong with %s', (text) => {
    const { bars, said } = readBars(text, 12)
    expect(bars).toEqual([])
    expect(said).toContain('from 1 to 12')
  })
  it.each(['', '  ', ','])('asks where nothing is written: “%s”', (text) =>
    expect(readBars(text, 12)).toEqual({ bars: [], said: 'Which bars? Such as 1 5 9-10.' }),
  )
})
