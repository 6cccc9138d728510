// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest'
import { outline } from './outline'

const told = (html: string) => {
  const main = document.createElement('main')
  main.innerHTML = html
  document.body.replaceChildren(main)
  return outline(main)
}

describe('a place without a sentence of its own', () => {
  it('tells its name, how much it lists, and what it begins with', () => {
    expect(told('<h1>Sets</h1><ul><li><a>Friday</a> 3 charts</li><li><a>Sunday</a></li></ul>')).toBe(
      'Sets: 2 entries. The first is Friday.',
    )
    expect(told('<h1>Sets</h1><ul><li>Friday</li></ul>')).toBe('Sets: 1 entry. The first is Friday.')
  })
  it('tells its parts, each with what stands under it', () => {
    expect(told('<h1>Log</h1><h2>This week</h2><p>3 h 20 min.</p><h2>Keys</h2><div></div><p>7 of 12</p>')).toBe(
      'Log. This week: 3 h 20 min. Keys: 7 of 12.',
    )
  })
  it('leaves out lists of ways, drawings and long texts, and says something of an empty place', () => {
    expect(
      told(
        `<h1>A</h1><nav><ul><li>one</li></ul></nav><ul class="legend"><li>root</li></ul><h2>B</h2><p>${'x'.repeat(200)}</p>`,
      ),
    ).toBe('A. B.')
    expect(told('<h1>Sets</h1><p>No set yet: <b>begin one</b>.</p>')).toBe('Sets. No set yet: begin one .')
  })
})
