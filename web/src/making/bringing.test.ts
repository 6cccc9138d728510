import { describe, expect, it } from 'vitest'
import { isChords, isTab, broughtAs, texts, type Kind } from './bringing'

const tab = ['e|--5--8--|', 'B|--------|', 'G|--------|', 'D|--------|', 'A|--------|', 'E|--------|'].join('\n')

describe('what is dropped or pasted', () => {
  it.each<[string, string, string, Kind | undefined]>([
    ['pasted.txt', tab, 'today', 'line'],
    ['pasted.txt', tab, 'licks', 'licks'],
    ['pasted.txt', tab, 'charts', 'line'],
    ['pasted.txt', tab.replaceAll('\n', '\r\n'), 'line', 'line'],
    ['pasted.txt', '| C7 | F7 | C7 | % |', 'today', 'chart'],
    ['pasted.txt', '| C7 | F7 |', 'licks', 'chart'],
    ['pasted.txt', 'C7 F7 C7 G7', 'today', 'chart'],
    ['pasted.txt', '{title: Low Water}\n[C7]by the [F7]sea', 'today', 'chart'],
    ['x.cho', 'by the sea', 'today', 'chart'],
    ['x.mid', 'MThd', 'today', 'line'],
    ['x.mid', 'MThd', 'charts', 'chart'],
    ['x.musicxml', '<?xml version="1.0"?>', 'licks', 'licks'],
    ['x.tab', 'nothing much', 'today', 'line'],
    ['pasted.txt', 'Dear Bea, shall we meet at the harbour?', 'today', undefined],
    ['pasted.txt', 'a | b', 'charts', undefined],
    ['pasted.txt', 'https://example.org/A/B', 'charts', undefined],
    ['pasted.txt', 'A', 'charts', undefined],
    ['pasted.txt', '', 'charts', undefined],
    ['x.png', '\u0089PNG', 'charts', undefined],
  ])('%s, %j, in %s: %s', (name, text, place, kind) => {
    expect(broughtAs(name, text, place)).toBe(kind)
  })

  it('is told by what stands in it', () => {
    expect(isTab(tab)).toBe(true)
    expect(isTab(tab.split('\n').slice(0, 3).join('\n'))).toBe(false)
    expect(isChords('Am7 D7')).toBe(true)
    expect(isChords('A D')).toBe(true)
    expect(isChords('Ada Bea')).toBe(false)
    for (const kind of Object.values(texts))
      expect(kind.accept.split(',').every((ending) => /^\.[a-z]+$/.test(ending))).toBe(true)
  })
})
