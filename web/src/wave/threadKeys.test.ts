// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest'
import type { Note, Target } from '../api/client'
import { toneFrom, toneSaid, useThreadKeys } from './useThreadKeys'

const tone = (midi: number, degree: string, string: number, fret: number) =>
  ({ midi, degree, note: 'C', string, fret }) as Note
const tones = [tone(60, 'R', 4, 10), tone(64, '3', 3, 9), tone(67, '5', 3, 12), tone(70, 'b7', 2, 11)]
const press = (key: string, more = {}) => new KeyboardEvent('keydown', { key, cancelable: true, ...more })

describe('the thread by keys', () => {
  it('turns a target to the next tone of the chord by pitch, and no further than the last', () => {
    for (const [i, now] of tones.entries()) {
      expect(toneFrom(tones.toReversed(), now as Target, true)).toBe(tones[i + 1])
      expect(toneFrom(tones.toReversed(), now as Target, false)).toBe(tones[i - 1])
    }
    expect(toneFrom(tones, undefined, true)).toBe(tones[0])
    expect(toneFrom([], tones[0] as Target, true)).toBeUndefined()
  })
  it('goes along the changes, tells each as a musician does, and takes no key with another held', () => {
    const steps = [{ bar: 0 }, { bar: 4 }]
    const targets = [tones[1], tones[3]] as Target[]
    let at = 0
    const pinned: [number, Note][] = []
    const keys = useThreadKeys(
      () => ({ at, steps, targets, tones: () => tones }),
      (to) => (at = to),
      (step, to) => pinned.push([step, to]),
    )
    keys.held.value = true
    expect(keys.told.value).toBe('bar 1: 3, C, string 3 fret 9')
    keys.key(press('ArrowLeft'))
    expect(at).toBe(0)
    keys.key(press('ArrowRight', { altKey: true }))
    expect(at).toBe(0)
    keys.key(press('ArrowRight'))
    expect(at).toBe(1)
    keys.key(press('ArrowDown'))
    keys.key(press('ArrowUp'))
    expect(pinned).toEqual([[1, tones[2]]]) // above the highest there is none
    const other = press('t')
    keys.key(other)
    expect(other.defaultPrevented).toBe(false)
    expect(toneSaid({ ...tones[3], fret: 0 } as Target)).toBe('flat 7, C, string 2 open')
  })
})
