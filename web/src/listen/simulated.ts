/* A simulated player plays along: what an ear would notice of its notes, when their time comes. */
import { quarter } from '../api/facts'
import type { HeardNote } from '../api/client'
import type { Timed } from './listening'
import { Played, soon } from './played'

export class Simulated {
  private readonly notes: HeardNote[]

  constructor(
    heard: HeardNote[],
    private readonly played = new Played(),
  ) {
    this.notes = heard.toSorted((a, b) => a.at - b.at)
  }

  /** What was noticed up to a tick, and not told before. */
  due(tick: number): Timed[] {
    const out: Timed[] = []
    while (this.notes[0] && this.notes[0].at + 2 * soon <= tick) {
      const { at, pitch, length, sway, rate, uneven, low } = this.notes.shift()!
      out.push(...this.played.struck('', pitch, at))
      if (sway) out.push(...this.played.swayed('', { width: sway, rate, uneven, low }, at + quarter / 2))
      if (length) out.push(...this.played.released('', at + length))
    }
    return out
  }
}

/** How often a simulated player errs in a chorus, from 0: as one who learns, less each time. */
export const erring = (chorus: number) => ({
  wrong: 0.05 + 0.2 * 0.75 ** chorus,
  late: 0.1 + 0.2 * 0.75 ** chorus,
})
