/* Notes that are known and need not be heard, told as an ear would tell them: by MIDI, by a press, by a simulated player. */
import type { Swaying } from './ear/sway'
import type { Timed } from './listening'

/** Ticks until a pitch is known, and until it is weighed. */
export const soon = 40

/** Turns of a bend that make vibrato of it. */
const sways = 4

type Untold = Timed extends infer O ? (O extends Timed ? Omit<O, 'seq' | 'frame'> : never) : never

export class Played {
  private seq = 0
  private sounding = new Map<
    string,
    { of: number; midi: number; way: number; last: number; from: number; turns: number }
  >()

  private tell(o: Untold): Timed {
    return { ...o, seq: ++this.seq, frame: 0 } as Timed
  }

  /** key tells the notes that sound together apart. */
  struck(key: string, midi: number, tick: number): Timed[] {
    const attack = this.tell({ kind: 'attack', tick })
    const of = attack.seq
    this.sounding.set(key, { of, midi, way: 0, last: 0, from: 0, turns: 0 })
    return [
      attack,
      this.tell({ kind: 'settled', of, tick: tick + soon, midi, clarity: 1 }),
      this.tell({ kind: 'salience', of, tick: tick + 2 * soon, candidates: [[Math.round(midi), 1]], fresh: 1, level: -20 }), // prettier-ignore
    ]
  }
  /** A bend that goes on and back several times is vibrato. */
  bent(key: string, by: number, tick: number): Timed[] {
    const note = this.sounding.get(key)
    if (!note) return []
    const way = Math.sign(by - note.last)
    if (way && way !== note.way) {
      const width = Math.abs(note.last - note.from) / 2
      note.turns = width >= 0.05 && width < 0.8 ? note.turns + 1 : 0
      if (note.turns === sways) return [this.tell({ kind: 'sway', of: note.of, tick, width })]
      note.from = note.last
      note.way = way
    }
    note.last = by
    return Math.abs(by) > 0.3 ? [this.tell({ kind: 'bend', of: note.of, tick, midi: note.midi + by })] : []
  }
  /** All that sounds on a channel is bent alike; its keys begin so. */
  bentAll(channel: string, by: number, tick: number): Timed[] {
    return [...this.sounding.keys()].filter((k) => k.startsWith(channel)).flatMap((k) => this.bent(k, by, tick))
  }
  swayed(key: string, how: Partial<Swaying> & { width: number }, tick: number): Timed[] {
    const note = this.sounding.get(key)
    return note ? [this.tell({ kind: 'sway', of: note.of, tick, ...how })] : []
  }
  released(key: string, tick: number): Timed[] {
    const note = this.sounding.get(key)
    this.sounding.delete(key)
    return note ? [this.tell({ kind: 'lost', of: note.of, tick })] : []
  }
}
