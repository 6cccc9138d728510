/* Where the page at the laptop stands and what it plays, as it is told to those that follow. */
import type { Loop } from '../band/transport'
import type { Clock } from '../band/useHeard'

/** A stretch of the band's time: a tick, when it is heard in milliseconds of the program's clock, ticks in a millisecond. */
export interface Told {
  tick: number
  at: number
  perMs: number
  loop?: Loop
}

/** What is asked for in large letters, such as a call. */
export interface Shown {
  big: string
  words: string
  /** with what stands around it, for who cannot see it */
  spoken: string
}

export interface Lead {
  /** with its query */
  path: string
  playing: boolean
  /** what plays, or would */
  title: string
  chart?: number
  tempo: number
  /** in beats from the top */
  loop?: { from: number; to: number }
  /** what plays instead of the chart */
  audition?: { title: string; beats: number; bars?: number; lengths?: number[] | null }
  stretches: Told[]
  shown?: Shown
  trouble?: string
}

/** So long nothing may come from a page that plays, which tells three times a second; then it is not known any more where it is. */
export const silence = 4000

/** The clock of a band elsewhere. */
export class Following implements Clock {
  private stretches: Told[] = []
  private last = -Infinity

  /** now is the program's clock, as far as this page knows it. */
  constructor(private readonly now: () => number) {}

  tell(stretches: Told[]) {
    this.stretches = stretches
    this.last = this.now()
  }

  /** Whether what was told is not too old. */
  get fresh() {
    return this.now() - this.last < silence
  }

  position(ahead: number) {
    const t = this.now() + ahead * 1000
    const s = this.stretches.findLast((s) => s.at <= t) ?? this.stretches[0]
    if (!s) return undefined
    let tick = s.tick + (t - s.at) * s.perMs
    // What is told of the next round may be under way still.
    if (s.loop && s.tick < s.loop.to && tick >= s.loop.to)
      tick = s.loop.from + ((tick - s.loop.to) % (s.loop.to - s.loop.from))
    return { tick }
  }
}

/** How a device shows what a page shows: the Bench on the stand or as a sheet, a call by itself, the rest as it is there. */
export type View = 'stand' | 'sheet'
export function placeOf(
  lead: Pick<Lead, 'path' | 'chart' | 'playing' | 'audition' | 'shown'>,
  view: View,
): string | undefined {
  const url = new URL(lead.path, 'https://undaris.invalid')
  const [, place, id] = url.pathname.split('/')
  const chart = (of: number | string) =>
    `/${view === 'stand' ? 'stand' : 'bench'}/${of}${place === 'bench' || place === 'stand' ? positionOf(url) : ''}`
  if (lead.shown) return '/call'
  if ((place === 'bench' || place === 'stand') && id) return chart(id)
  if (place === 'lines' && /^\d+$/.test(id ?? '')) return `/lines/${id}`
  if ((place === 'paper' || place === 'atlas' || place === 'licks') && id) return url.pathname
  // Elsewhere what plays is shown: over the changes, a set, or a chart while something is looked up.
  if (lead.chart && (lead.playing ? !lead.audition : place === 'practice' || place === 'bench'))
    return chart(lead.chart)
  return undefined
}

/** What an address says of where on the neck; without it a player's own place is kept. */
export const where = ['frets', 'own', 'on', 'way']

/** Of an address what says where on the neck, and in which bar. */
function positionOf(url: URL) {
  const kept = new URLSearchParams()
  for (const name of [...where, 'bar']) {
    const value = url.searchParams.get(name)
    if (value) kept.set(name, value)
  }
  const query = kept.toString()
  return query && `?${query}`
}
