import { expect, it } from 'vitest'
import { inBars } from './bars'

it('bars are told by their runs, each once, in order', () => {
  for (const [bars, told] of [
    [[5], 'bar 5'],
    [[5, 5], 'bar 5'],
    [[7, 5], 'bars 5 and 7'],
    [[1, 2], 'bars 1 and 2'],
    [[1, 2, 3], 'bars 1 to 3'],
    [[9, 1, 5, 6, 7, 8, 3], 'bars 1, 3 and 5 to 9'],
    [[1, 2, 4, 6, 7, 8], 'bars 1, 2, 4 and 6 to 8'],
  ] as const)
    expect(inBars([...bars])).toBe(told)
})
