import { effectScope, reactive } from 'vue'
import { describe, expect, it } from 'vitest'
import { metreOf, type Tile } from './tiles'
import { useTiles } from './useTiles'

function begin(...texts: string[]) {
  const done: string[] = []
  const props = reactive({
    bars: texts.map((text) => ({ text })) as Tile[],
    change: (name: string, bars: Tile[]) => {
      done.push(name)
      props.bars = bars
      return Promise.resolve(!bars.some((b) => b.text === 'huh'))
    },
  })
  const tiles = effectScope().run(() => useTiles(props))!
  const now = () => props.bars.map((b) => b.text).join(' ')
  const settled = () => new Promise((r) => setTimeout(r))
  return { tiles, props, done, now, settled }
}

describe('chosen bars', () => {
  it('go from the first that is pressed to the one in hand, either way, and no further than there are', () => {
    const { tiles } = begin('A', 'B', 'C', 'D')
    expect(tiles.chosen.value).toBeUndefined()
    tiles.choose(2)
    expect(tiles.chosen.value).toEqual({ from: 2, to: 2 })
    tiles.choose(0, true)
    expect(tiles.chosen.value).toEqual({ from: 0, to: 2 })
    expect([0, 1, 2, 3].map(tiles.isChosen)).toEqual([true, true, true, false])
    tiles.choose(99, true)
    expect(tiles.chosen.value).toEqual({ from: 2, to: 3 })
    tiles.choose(-5)
    expect(tiles.chosen.value).toEqual({ from: 0, to: 0 })
    expect(tiles.several.value).toBe('a bar')
  })

  it('are moved, and stay chosen where they are', async () => {
    const { tiles, now, done, settled } = begin('A', 'B', 'C', 'D')
    tiles.choose(1)
    tiles.choose(2, true)
    tiles.shift(1)
    await settled()
    expect(now()).toBe('A D B C')
    expect(tiles.chosen.value).toEqual({ from: 2, to: 3 })
    tiles.shift(1) // there is nothing behind
    await settled()
    expect(now()).toBe('A D B C')
    for (let i = 0; i < 2; i++) {
      tiles.shift(-1)
      await settled()
    }
    expect(now()).toBe('B C A D')
    tiles.shift(-1)
    await settled()
    expect(now()).toBe('B C A D')
    expect(tiles.chosen.value).toEqual({ from: 0, to: 1 })
    expect(new Set(done)).toEqual(new Set(['bars moved']))
  })

  it('are doubled behind themselves, taken out, and written', async () => {
    const { tiles, now, done, settled, props } = begin('A', 'B', 'C')
    tiles.double()
    tiles.drop()
    await settled()
    expect(now()).toBe('A B C') // none is chosen
    tiles.choose(0)
    tiles.choose(1, true)
    expect(tiles.taken()).toBe('| A | B |')
    tiles.double()
    await settled()
    expect(now()).toBe('A B A B C')
    expect(tiles.chosen.value).toEqual({ from: 2, to: 3 })
    tiles.drop()
    await settled()
    expect(now()).toBe('A B C')
    expect(done).toEqual(['bars doubled', 'bars gone'])
    props.bars = [{ text: 'A' }]
    await settled()
    expect(tiles.chosen.value!.to).toBe(0) // those that are gone are not chosen
  })

  it('get a bar more behind them, of the same chord without its signs, and silence where there is none', async () => {
    const { tiles, now, settled } = begin('|: C7', 'F7 :|')
    tiles.choose(0)
    tiles.add()
    await settled()
    expect(now()).toBe('|: C7 C7 F7 :|')
    expect(tiles.chosen.value).toEqual({ from: 1, to: 1 })
    tiles.choose(2)
    tiles.add()
    await settled()
    expect(now()).toBe('|: C7 C7 F7 :| F7')
    const empty = begin()
    empty.tiles.add()
    await empty.settled()
    expect(empty.now()).toBe('N.C.')
  })
})

describe('what is told of a bar', () => {
  const bars = [
    { text: '4/4 C7', beats: 4, chords: 'C7', section: 'Verse' },
    { text: 'F7', beats: 4, chords: 'F7', after: 'repeats' },
    { text: '2/4 G7', beats: 2, chords: 'G7', before: '1.' },
    { text: 'A7', beats: 2, chords: 'A7' },
  ]
  it('is its time only where it changes or is written at the start', () => {
    expect(bars.map((_, i) => metreOf(bars, i))).toEqual(['4/4', '', '2/4', ''])
    expect(metreOf([{ text: 'C7', beats: 4 }], 0)).toBe('')
  })
  it('is everything that stands there, in order', () => {})
})

describe('a pickup', () => {
  it('is put before the first bar, of the chord that the last ends on', async () => {
    const { tiles, props, done, now, settled } = begin('C7', 'F7', 'Dm7 . G7 .')
    props.bars = props.bars.map((b) => ({ ...b, chords: b.text }))
    tiles.lead()
    await settled()
    expect(now()).toBe('pickup 1/4 G7 C7 F7 Dm7 . G7 .')
    expect(props.bars[0]!.pickup).toBe(true)
    expect(done).toEqual(['a pickup'])
    expect(tiles.chosen.value).toEqual({ from: 0, to: 0 })
  })
})
