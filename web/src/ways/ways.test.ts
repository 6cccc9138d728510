import { describe, expect, it } from 'vitest'
import type { ChartMap } from '../api/client'
import { aimOf, placed } from './aim'
import { blues } from './blues'
import { wayIds, ways } from './ways'

const open = [64, 59, 55, 50, 45, 40]
const names = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B']
type Tones = Record<string, number>
const seven: Tones = { R: 0, '3': 4, '5': 7, b7: 10 }
const power: Tones = { R: 0, '5': 7 }

/** A map of one chord a bar, as the program gives it, of what an aim is made from. */
function mapOf(roots: (number | undefined)[], tones: Tones = seven, strings = open): ChartMap {
  const chords = [...new Set(roots)]
  const places = (root: number | undefined) =>
    strings.flatMap(
      (base, s) =>
      Array.from({ length: 23 }, (_, fret) => ({ string: s + 1, fret, midi: base + fret, note: names[(base + fret) % 12]! }))
        .flatMap((p) => Object.entries(tones).flatMap(([degree, up]) => (root !== undefined && p.midi % 12 === (root + up) % 12 ? [{ ...p, degree }] : []))), // prettier-ignore
    )
  return {
    chart: { beats: 4, key: 'A', feel: 'shuffle' },
    instrument: { midi: strings, last: 22 },
    bars: roots.map((r) => ({ beats: 4, changes: [{ beat: 1, length: 4, chord: chords.indexOf(r), numeral: '' }] })),
    chords: chords.map((r) => ({ symbol: r === undefined ? 'N.C.' : names[r], none: r === undefined, tones: [] })),
    positions: [0, 2, 4, 7, 9].map((low, i) => ({ number: i + 1, low, high: low + 4 })),
    neck: chords.map(places),
  } as unknown as ChartMap
}

describe('the first aim', () => {
  it('is the third of the first new chord, where a hand is at ease, with the bars of that change', () => {
    const a = aimOf(mapOf([9, 9, 9, 9, 2, 2, 9, 9, 4, 2, 9, 4]))!
    expect(a).toMatchObject({ from: 'A', to: 'D', bar: 5, loop: '4-5', name: 'third', note: 'F#', mode: 'thirds' })
    expect(a.place.midi % 12).toBe(6)
    expect(placed(a)).toBe(`string ${a.place.string}, fret ${a.place.fret}`)
    const [low, high] = a.frets.split('-').map(Number)
    expect(a.place.fret >= low! && a.place.fret <= high! && low! >= 2).toBe(true)
    expect(a.key).not.toBe('')
    expect(Math.abs(a.before.midi - a.place.midi)).toBeLessThanOrEqual(3)
  })

  it('is there over every pair of roots, on guitar and bass, and right', () => {
    for (const strings of [open, open.slice(2).map((m) => m - 12)])
      for (let from = 0; from < 12; from++)
        for (let to = 0; to < 12; to++) {
          const a = aimOf(mapOf([from, to], seven, strings))!
          expect([a.place.midi % 12, a.name]).toEqual([(to + 4) % 12, 'third'])
          expect(a.from === a.to).toBe(from === to)
          expect(strings[a.place.string - 1]! + a.place.fret).toBe(a.place.midi)
        }
  })

  it('is a fifth where there is no third, the top where nothing changes, and nothing where nothing sounds', () => {
    expect(aimOf(mapOf([9, 2], power))).toMatchObject({ name: 'fifth', mode: 'fifths' })
    expect(aimOf(mapOf([9, 9, 9]))).toMatchObject({ from: 'A', to: 'A', loop: '1-3' })
    expect(aimOf(mapOf([undefined, 9, 2]))).toMatchObject({ from: 'A', to: 'D', bar: 3, loop: '2-3' })
    expect(aimOf(mapOf([undefined, undefined]))).toBeUndefined()
  })
})

describe('the ways in', () => {
  it('say at every step what is pressed, and each leads on or ends', () => {
    const a = aimOf(mapOf([9, 9, 2, 2]))!
    const same = aimOf(mapOf([9, 9]))!
    for (const id of wayIds) {
      const { steps } = ways[id]
      expect(steps.length).toBeGreaterThan(2)
      expect(steps.length).toBeLessThan(7)
      for (const [i, s] of steps.entries())
        for (const aim of [a, same]) {
          expect(s.says(aim)).toMatch(/^[A-Z].*\.$/)
          expect(s.says(aim)).not.toMatch(/undefined|[A-G]#|[A-G]b/)
          expect(s.says(aim).length).toBeLessThan(130)
          expect(s.buttons.length).toBeGreaterThan(0)
          if (i === steps.length - 1) expect(s.buttons.some((b) => b.does === 'whole' || b.does in ways)).toBe(true)
        }
    }
  })

  it('are begun over a blues that there is', () => {
    expect(blues.length).toBeGreaterThan(2)
    expect(new Set(blues.map((b) => b.form)).size).toBe(blues.length)
  })
})
