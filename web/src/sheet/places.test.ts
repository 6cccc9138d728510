import { describe, expect, it } from 'vitest'
import { lineAt, mended } from './places'

describe('places in a text', () => {
  it('are counted in characters, also of those that a browser counts twice', () => {
    const text = '| C7 | 𝄋 Zork | F7 |'
    const offset = [...text].indexOf('Z')
    expect(mended(text, offset, 4, 'G7')).toBe('| C7 | 𝄋 G7 | F7 |')
    expect(mended('|  | F7 |', 1, 2, '%')).toBe('| % | F7 |')
  })

  it('tells where each line lies; one that is not there is the end', () => {
    const text = 'a\n𝄋bc\n\nd'
    const lines = text.split('\n')
    lines.forEach((line, i) => {
      const { offset, length } = lineAt(text, i + 1)
      expect([...text].slice(offset, offset + length).join('')).toBe(line)
    })
    expect(lineAt(text, 9).length).toBe(0)
  })
})
