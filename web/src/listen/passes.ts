/* A loop is played over and over: each pass is listened to by itself, and over when the next begins. */
import type { Listening, Timed, Whole } from './listening'

/** What the ear noticed at a moment of a pass. */
export type Noticed = Timed & { pass: number }
type Ear = Pick<Listening, 'notice' | 'end' | 'drop'>

/** Milliseconds after the band has stopped in which the last note may still be weighed. */
const rings = 250

export class Passes {
  private ears?: { pass: number; ear: Ear }

  constructor(
    private readonly begin: (pass: number) => Ear | undefined,
    private readonly over: (whole: Whole, pass: number) => void,
  ) {}

  /** What was noticed, and where the band is. What belongs to the pass before is told to that one. */
  noticed(list: Noticed[], now: { tick: number; pass: number }, source?: string) {
    const passes = [...new Set([...list.map((o) => o.pass), now.pass])].toSorted((a, b) => a - b)
    for (const pass of passes) {
      if (this.ears && pass < this.ears.pass) continue
      const own = list.filter((o) => o.pass === pass)
      this.attend(pass)?.notice(own, now.pass === pass ? now.tick : Number.MAX_SAFE_INTEGER, source)
    }
  }

  private attend(pass: number) {
    if (this.ears && this.ears.pass !== pass) void this.judged()
    if (!this.ears) {
      const ear = this.begin(pass)
      this.ears = ear && { pass, ear }
    }
    return this.ears?.ear
  }

  private async judged() {
    const { ear, pass } = this.ears!
    this.ears = undefined
    this.over(await ear.end(), pass)
  }

  /** The band has stopped. */
  close() {
    const open = this.ears
    if (open) setTimeout(() => this.ears === open && void this.judged(), rings)
  }

  /** What is played belongs to something else now. */
  drop() {
    this.ears?.ear.drop()
    this.ears = undefined
  }
}
