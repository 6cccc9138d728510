/* Notes that are known and need not be heard, told as an ear would tell them: by MIDI, by a press, by a simulated player. */
import type { Timed } from './listening'

/** Ticks until a pitch is known, and until it is weighed. */
export const soon = 40

type Untold = Timed extends infer O ? (O extends Timed ? Omit<O, 'seq' | 'frame'> : never) : never

export class Played {
  private seq = 0
  private sounding = new Map<string, { of: number; midi: number }>()

  private tell(o: Untold): Timed {
    return { ...o, seq: ++this.seq, frame: 0 } as Timed
  }

  /** key tells the notes that sound together apart. */
  struck(key: string, midi: number, tick: number): Timed[] {
    const attack = this.tell({ kind: 'attack', tick })
    const of = attack.seq
    this.sounding.set(key, { of, midi })
    return [
      attack,
      this.tell({ kind: 'settled', of, tick: tick + soon, midi, clarity: 1 }),
      this.tell({ kind: 'salience', of, tick: tick + 2 * soon, candidates: [[Math.round(midi), 1]], fresh: 1, level: -20 }), // prettier-ignore
    ]
  }
  bent(key: string, by: number, tick: number): Timed[] {
    const note = this.sounding.get(key)
    return note && Math.abs(by) > 0.3 ? [this.tell({ kind: 'bend', of: note.of, tick, midi: note.midi + by })] : []
  }
  released(key: string, tick: number): Timed[] {
    const note = this.sounding.get(key)
    this.sounding.delete(key)
    return note ? [this.tell({ kind: 'lost', of: note.of, tick })] : []
  }
}
