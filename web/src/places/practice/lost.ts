/* Where the band is, for who has lost it. */
import { quarter } from '../../api/facts'
import type { PracticeGround } from '../../api/client'
import type { Metre } from '../../music/metre'

export interface Whereabouts {
  /** from 1 */
  bar: number
  chord: string
  /** the chord that comes next, and in how many bars; there is none where nothing changes */
  next?: string
  bars?: number
  /** beats from the top */
  at: number
}

/** At a beat of the band, that counts on from chorus to chorus. */
export function whereabouts(bars: PracticeGround['bars'], metre: Metre, beat: number): Whereabouts | undefined {
  const whole = metre.length
  const all = bars.flat().map((c) => ({ chord: c.chord, beat: c.at / quarter }))
  if (beat < 0 || !whole || !all.length) return undefined
  const at = beat % whole
  const i = Math.max(0, all.findLastIndex((c) => c.beat <= at)) // prettier-ignore
  const now = all[i]!
  const later = [...all.slice(i + 1), ...all.slice(0, i + 1).map((c) => ({ ...c, beat: c.beat + whole }))]
  const next = later.find((c) => c.chord !== now.chord)
  const bar = metre.at(at).bar
  const barOf = (b: number) => metre.at(b % whole).bar + (b >= whole ? bars.length : 0)
  return {
    bar: bar + 1,
    chord: now.chord,
    ...(next && { next: next.chord, bars: barOf(next.beat) - bar }),
    at,
  }
}
