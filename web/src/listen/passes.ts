/* A loop is played over and over: each pass is listened to by itself, and over when the next begins. */
import { quarter } from '../api/facts'
import type { PlayedSpan } from '../api/client'
import type { Listening, Timed, Whole } from './listening'

/** What the ear noticed at a moment of a pass. */
export type Noticed = Timed & { pass: number }
type Ear = Pick<Listening, 'notice' | 'end' | 'drop'>

/** Milliseconds after the band has stopped in which the last note may still be weighed. */
const rings = 250
/** Ticks that a note may come before its place. */
const early = quarter / 6

export class Passes {
  private ears?: { pass: number; ear: Ear }
  /** From where to where each pass was played. */
  private readonly spans = new Map<number, PlayedSpan>()

  constructor(
    private readonly begin: (pass: number) => Ear | undefined,
    private readonly over: (whole: Whole, pass: number, span?: PlayedSpan) => void,
  ) {}

  /** Where the band is, whatever is noticed: what it does not come to is not asked for. */
  at({ tick, pass }: { tick: number; pass: number }) {
    const known = this.spans.get(pass)
    this.spans.set(pass, { from: known?.from ?? tick, to: Math.max(known?.to ?? tick, tick) })
  }
  /** How far a pass was played: one that is over, to the end of its beat; else to where a note may be that came early. */
  span(pass: number, over: boolean): PlayedSpan | undefined {
    const s = this.spans.get(pass)
    return s && { ...s, to: over ? (Math.floor(s.to / quarter) + 1) * quarter : s.to + early }
  }

  /** What was noticed, and where the band is. What belongs to the pass before is told to that one. */
  noticed(list: Noticed[], now: { tick: number; pass: number }, source?: string) {
    const passes = [...new Set([...list.map((o) => o.pass), now.pass])].toSorted((a, b) => a - b)
    for (const pass of passes) {
      if (this.ears && pass < this.ears.pass) continue
      const own = list.filter((o) => o.pass === pass)
      this.attend(pass)?.notice(own, now.pass === pass ? now.tick : Number.MAX_SAFE_INTEGER, source)
    }
    this.at(now)
  }

  private attend(pass: number) {
    if (this.ears && this.ears.pass !== pass) void this.judged(true)
    if (!this.ears) {
      const ear = this.begin(pass)
      this.ears = ear && { pass, ear }
    }
    return this.ears?.ear
  }

  private async judged(over: boolean) {
    const { ear, pass } = this.ears!
    this.ears = undefined
    const span = this.span(pass, over)
    this.over(await ear.end(span), pass, span)
  }
  /** The band begins anew. */
  anew() {
    this.spans.clear()
  }

  /** The band has stopped. */
  close() {
    const open = this.ears
    if (open) setTimeout(() => this.ears === open && void this.judged(false), rings)
  }

  /** What is played belongs to something else now. */
  drop() {
    this.ears?.ear.drop()
    this.ears = undefined
  }
}
