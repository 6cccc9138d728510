import { describe, expect, it } from 'vitest'
import { all, anew, ask, choose, click, open, sees, shut, until, visit } from '../../../testing/open'
import type { Line, LineBody } from '../../api/client'

await open('/charts')

const standard = 'E2,A2,D3,G3,B3,E4'
const every = [1, 2, 3, 4, 5, 6]

interface Case {
  name: string
  key: string
  chords: string
  low: number
  high: number
  /** as they are written; all where none are */
  on?: string
  strings: number[]
  instrument?: { tuning: string; frets: number; scale: number; left?: boolean; capo?: number }
}

const cases: Case[] = [
  { name: 'strings 5 and 2', key: 'C', chords: 'C7 F7 C7 G7', low: 0, high: 12, on: '5,2', strings: [5, 2] },
  { name: 'three notes a string in B♭', key: 'Bb', chords: 'Bb7 Eb7 Bb7 F7', low: 5, high: 10, strings: every },
  { name: 'frets 5 to 12', key: 'A', chords: 'A7 D7 A7 E7', low: 5, high: 12, strings: every },
  {
    name: 'a left-handed seven-string',
    key: 'E',
    chords: 'E7 A7 E7 B7',
    low: 4,
    high: 9,
    on: '7,6,5,4',
    strings: [7, 6, 5, 4],
    instrument: { tuning: `B1,${standard}`, frets: 24, scale: 660, left: true },
  },
  {
    name: 'a left-handed drop-D seven-string with a capo',
    key: 'A',
    chords: 'A7 D7 A7 E7',
    low: 5,
    high: 10,
    strings: [...every, 7],
    instrument: { tuning: 'B1,D2,A2,D3,G3,B3,E4', frets: 24, scale: 660, left: true, capo: 2 },
  },
  {
    name: 'a bass on strings 3 and 4',
    key: 'G',
    chords: 'G7 C7 G7 D7',
    low: 2,
    high: 9,
    on: '4,3',
    strings: [4, 3],
    instrument: { tuning: 'E1,A1,D2,G2', frets: 20, scale: 864 },
  },
]

describe.each(cases)('$name', ({ key, chords, low, high, on = '', strings, instrument }) => {
  const text = `| ${chords.split(' ').join(' | ')} |`
  const { tuning, frets, capo = 0 } = instrument ?? { tuning: standard, frets: 22 }
  const own = `own=${low}-${high}&on=${on}`
  const inside = (spot: string) => {
    const [string, fret] = spot.split(':').map(Number)
    return strings.includes(string!) && fret! >= low && fret! <= high
  }
  const frame = { title: 'Region', key, feel: 'shuffle', tempo: 96, beats: 4, text }

  it('holds what the Bench, the Atlas, a written line and an exercise have', async () => {
    await ask('/api/player', 'PUT', { tuning, frets, capo, scale: instrument?.scale ?? 648, left: !!instrument?.left, comfort: 110, habit: 'stay' }) // prettier-ignore
    const { id: chart } = await ask<{ id: number }>('/api/charts', 'POST', frame)
    const { id: line } = await ask<{ id: number }>('/api/lines', 'POST', { ...frame, low, high, strings: on, tuning, frets, capo, palette: 'minor-pentatonic', notes: [] } satisfies LineBody) // prettier-ignore
    await anew()

    await visit(`/bench/${chart}?${own}`)
    await until(() => location.pathname === `/bench/${chart}` && all('[data-bar]').length === 4)
    const spots = () => all('[data-spot]').map((e) => e.dataset.spot!)
    await until(() => spots().length >= 3 && spots().every(inside))
    await sees('.thread .about', 'half steps')
    await click('.thread button', 'List')
    const targets = () => all('[role=dialog] tbody td:nth-child(3)').map((e) => e.textContent!.trim())
    await until(() => targets().length === 4 && targets().every(inside))
    await shut()

    await visit(`/atlas/${chart}?${own}`)
    await until(() => all('.cell svg').length === 3 && all('.cell svg g').length >= 9)
    expect(spots().filter((spot) => !inside(spot))).toEqual([])

    await visit(`/lines/${line}`)
    const kept = (more: (l: Line) => boolean = () => true) =>
      until(async () => {
        const l = await ask<Line>(`/api/lines/${line}`)
        return l.notes.length > 3 && l.notes.every((n) => strings.includes(n.string!)) && more(l)
      })
    await click('[role=tab]', 'Write')
    await choose('wish-word', 'box blues')
    await click('.work-panel button', 'Write')
    await kept()
    await click('[role=tab]', 'Exercise')
    await click('.work-panel button', 'Lay it over the chords')
    await kept((l) => l.exercise === 'run')
  })
})
