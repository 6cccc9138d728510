/* The first thing that a newcomer lands on: a chart's first change, and the tone of its new chord that tells most of it. */
import type { ChartMap } from '../api/client'
import { keysOn } from '../listen/useByHand'
import { metreOfSheet } from '../music/metre'
import { holds, spanOf } from '../neck/region'

type Place = ChartMap['neck'][number][number]

export interface Aim {
  /** The chords; the same twice where the chart never changes. */
  from: string
  to: string
  /** The bar that it comes in, from 1, and the bars that go round. */
  bar: number
  loop: string
  /** The tone, as it is called and where it lies; the tone of the chord before that lies nearest. */
  name: string
  note: string
  place: Place
  before: Place
  /** The position, and the computer's key that lies there. */
  frets: string
  key: string
  /** The way to practise that asks for it. */
  mode: string
}

/** What tells most of a chord comes first; the root where there is nothing else. */
const telling = [
  { degrees: ['3', 'b3'], name: 'third', mode: 'thirds' },
  { degrees: ['b7', '7', 'bb7', '6'], name: 'seventh', mode: 'sevenths' },
  { degrees: ['5', 'b5', '#5'], name: 'fifth', mode: 'fifths' },
  { degrees: ['R'], name: 'root', mode: 'roots' },
]
/** Where a hand is at ease and four strings can be reached by the computer's keys. */
const easy = (p: { low: number }) => p.low >= 2 && p.low <= 9

export function aimOf(map: ChartMap): Aim | undefined {
  const metre = metreOfSheet(map.bars)
  const all = map.bars.flatMap((b, bar) => b.changes.map((c) => ({ bar, chord: c.chord })))
  const sounding = all.filter((c) => !map.chords[c.chord]?.none)
  const i = Math.max(1, sounding.findIndex((c, i) => i > 0 && c.chord !== sounding[i - 1]!.chord)) // prettier-ignore
  const last = sounding[i - 1] ?? sounding[0]
  const next = sounding[i] ?? last
  if (!last || !next) return undefined
  const positions = [...map.positions].sort((a, b) => Number(easy(b)) - Number(easy(a)))
  for (const t of telling)
    for (const p of positions) {
      const near = (chord: number) => map.neck[chord]!.filter((n) => holds(p, n) && n.string <= 4 && n.fret >= p.low)
      const place = near(next.chord)
        .filter((n) => t.degrees.includes(n.degree))
        .sort((a, b) => Math.abs(a.string - 2.5) - Math.abs(b.string - 2.5))[0]
      const before = place && near(last.chord).sort((a, b) => Math.abs(a.midi - place.midi) - Math.abs(b.midi - place.midi))[0] // prettier-ignore
      if (!place || !before) continue
      const first = Math.max(0, next.bar - (next.bar > last.bar ? 1 : 0))
      return {
        from: map.chords[last.chord]!.symbol,
        to: map.chords[next.chord]!.symbol,
        bar: next.bar + 1,
        loop: last.chord === next.chord ? `1-${metre.bars}` : `${first + 1}-${next.bar + 1}`,
        name: t.name,
        note: place.note,
        place,
        before,
        frets: spanOf(p),
        key: keysOn(map.instrument, p.low).find((k) => k.string === place.string && k.fret === place.fret)?.text ?? '',
        mode: t.mode,
      }
    }
  return undefined
}

/** The place, in words. */
export const placed = ({ place }: Aim) => `string ${place.string}, ${place.fret ? `fret ${place.fret}` : 'open'}`
