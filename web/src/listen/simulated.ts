/* A simulated player plays along: what an ear would notice of its notes, when their time comes. */
import type { HeardNote } from '../api/client'
import type { Timed } from './listening'

/** Ticks until its pitch is known, and until it is weighed. */
const soon = 40

export class Simulated {
  private readonly notes: HeardNote[]
  private seq = 0

  constructor(heard: HeardNote[]) {
    this.notes = heard.toSorted((a, b) => a.at - b.at)
  }

  /** What was noticed up to a tick, and not told before. */
  due(tick: number): Timed[] {
    const out: Timed[] = []
    while (this.notes[0] && this.notes[0].at + 2 * soon <= tick) {
      const { at, pitch, length } = this.notes.shift()!
      const of = ++this.seq
      out.push({ seq: of, kind: 'attack', frame: 0, tick: at })
      out.push({ seq: ++this.seq, kind: 'settled', of, frame: 0, tick: at + soon, midi: pitch, clarity: 1 })
      out.push({ seq: ++this.seq, kind: 'salience', of, frame: 0, tick: at + 2 * soon, candidates: [[Math.round(pitch), 1]], fresh: 1, level: -20 }) // prettier-ignore
      if (length) out.push({ seq: ++this.seq, kind: 'lost', of, frame: 0, tick: at + length })
    }
    return out
  }
}
