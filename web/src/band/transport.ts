/*
 * The band's clock. It turns ticks into frames of sound: which event falls on
 * which frame, where a loop comes round, when a ladder climbs. It knows nothing
 * of instruments or of the page, so that both may be busy.
 *
 * Ticks are counted from the top of the form; the count-in lies before it,
 * below zero.
 */
import { quarter } from '../api/facts'

export interface SoundEvent {
  at: number
  track: number
  data: number[]
}

export interface Score {
  events: SoundEvent[] // in order
  end: number
  countIn: number // ticks before the top: a bar of sticks, and an intro
  before?: number // ticks of a further bar of sticks, before that
  intro?: number // ticks of that
  pickup?: number // ticks of that in which the music begins
  sticks?: number // the track that counts
  tempo?: number // as it is written, beats a minute
  metres: { at: number; bar: number }[] // from a tick on, a bar has so many
  beat: number
}

export interface Loop {
  from: number
  to: number
  /** Every second pass is played this many ticks further on, where the same bars are played otherwise. */
  other?: number
}

/** What comes before the first bar: nothing, the pickup alone, a bar of sticks, or two. */
export type CountIn = 'none' | 'pickup' | 'bar' | 'two'

/** Climbs by step after so many passes, until the goal; the step may be negative. */
export interface Ladder {
  goal: number
  step: number
  passes: number
}

/** From this frame on the position is tick, and a tick lasts so many frames. */
export interface Anchor {
  frame: number
  tick: number
  framesPerTick: number
  tempo: number
  pass: number
  loop?: Loop
}

/** At one tick what ends, or is set, comes before what begins. */
export const order = (e: SoundEvent) => ((e.data[0]! & 0xf0) === 0x90 ? 1 : 0)

export class Transport {
  private score?: Score
  private next = 0
  private anchor: Anchor = { frame: 0, tick: 0, framesPerTick: 1, tempo: 120, pass: 0 }
  private loop?: Loop
  private ladder?: Ladder
  private shift = 0 // of the pass in hand, for loops with another side
  private jump?: { at: number; to: number }
  private sounding = new Map<number, SoundEvent>()
  /** The pickup comes without sticks. */
  private uncounted = false
  playing = false
  /** The end of the score is the end; nothing comes round. */
  once = false
  private ends = false

  constructor(
    private readonly rate: number,
    private readonly hear: (e: SoundEvent) => void,
    private readonly told: (a: Anchor) => void,
    private readonly over: () => void = () => {},
  ) {}

  /** Takes a score. A score that is playing is replaced where it stands. */
  load(score: Score, frame: number) {
    const tick = this.tickAt(frame)
    this.silence()
    this.score = score
    if (this.playing) this.place(frame, Math.min(tick, score.end - 1))
  }

  /** Takes more events into the score that plays; what is past comes with the next pass. */
  join(events: SoundEvent[]) {
    if (!this.score) return
    const due = this.score.events[this.next]?.at ?? Infinity
    this.next += events.filter((e) => e.at < due).length
    this.score = {
      ...this.score,
      events: [...this.score.events, ...events].sort((a, b) => a.at - b.at || order(a) - order(b)),
    }
  }

  /** Starts at a tick, after the count-in if asked for; a pickup to the top brings it along. */
  start(frame: number, from: number, tempo: number, loop: Loop | undefined, countIn: CountIn) {
    if (!this.score) return
    this.playing = true
    this.once = this.once && !this.ends
    this.ends = false
    this.loop = loop
    this.jump = undefined
    this.anchor = { ...this.anchor, tempo, framesPerTick: this.pace(tempo), pass: 0 }
    const begin = loop?.from ?? from
    const intro = this.score.intro ?? 0
    const pickup = begin === 0 ? (this.score.pickup ?? 0) : 0
    const sticks = countIn === 'bar' || countIn === 'two' || (countIn === 'none' && pickup > 0)
    this.uncounted = countIn === 'pickup'
    if (sticks && this.score.countIn) {
      this.jump = { at: begin === 0 ? 0 : -intro, to: begin } // from elsewhere it is counted in, and no more
      this.place(frame, -this.score.countIn - (countIn === 'two' ? (this.score.before ?? 0) : 0))
    } else if (countIn === 'pickup' && pickup > intro) {
      this.jump = { at: 0, to: 0 }
      this.place(frame, -pickup)
    } else this.place(frame, begin === 0 ? -intro : begin)
  }

  /** What plays is the last: at the end of the score it is over. */
  last() {
    this.ends = this.once = true
    this.loop = undefined
    this.jump = undefined
  }

  stop() {
    this.playing = false
    this.silence()
  }

  setTempo(tempo: number, frame: number) {
    const tick = this.tickAt(frame)
    this.anchor = { ...this.anchor, frame, tick, tempo, framesPerTick: this.pace(tempo) }
    if (this.playing) this.told(this.anchor)
  }

  setLadder(ladder: Ladder | undefined) {
    this.ladder = ladder
    this.anchor.pass = 0
  }

  /** A new loop takes over when the bar, or the pass of the old one, is over: the ear is not moved. */
  setLoop(loop: Loop | undefined, frame: number) {
    const old = this.loop
    this.loop = loop
    if (!this.playing || !this.score) return
    const tick = this.tickAt(frame)
    if (tick < 0) {
      this.jump = { at: 0, to: loop?.from ?? this.jump?.to ?? 0 }
      return
    }
    this.jump = undefined
    const within = (l: Loop) => tick >= l.from + this.shift && tick < l.to + this.shift
    if (!loop || within(loop)) return
    const turn = old && within(old) ? old.to + this.shift : this.barEnd(tick)
    this.jump = { at: Math.min(turn, this.score.end), to: loop.from }
  }

  /** Goes to a place when the bar is over. */
  goTo(tick: number, frame: number) {
    if (!this.playing || !this.score) return
    const now = this.tickAt(frame)
    this.jump = { at: now < 0 ? 0 : Math.min(this.barEnd(now), this.score.end), to: tick }
  }

  /**
   * Plays the events of some frames; render fills the sound between them. Ends early at a block counted from the
   * start of the pass, and where a pass is over; returns the frames done.
   */
  run(frame: number, most: number, render: (from: number, count: number) => void): number {
    let frames = most
    if (this.playing) {
      const into = (frame - this.anchor.frame) % most
      if (into > 0) frames -= into
    }
    let done = 0
    while (this.playing && this.score && done < frames) {
      const turn = this.turn()
      const event = this.score.events[this.next]
      const eventTick = event && event.at < turn.at ? event.at : Infinity
      const due = this.frameAt(Math.min(eventTick, turn.at)) - frame
      if (due >= frames) break
      if (due > done) {
        render(done, due - done)
        done = due
      }
      if (eventTick < Infinity) {
        this.next++
        if (!this.leadsElsewhere(event!) && !this.silenced(event!)) this.play(event!)
      } else {
        this.comeRound(turn)
        if (done > 0) return done
      }
    }
    if (done < frames) render(done, frames - done)
    return frames
  }

  /** A pickup leads to the top: who is counted in to another bar hears the sticks alone. */
  private leadsElsewhere(e: SoundEvent) {
    const note = (e.data[0]! & 0xf0) === 0x90
    return (
      this.score!.sticks !== undefined &&
      note &&
      e.at < 0 &&
      !!this.jump &&
      this.jump.to > 0 &&
      e.track !== this.score!.sticks
    )
  }

  private silenced(e: SoundEvent) {
    return this.uncounted && e.at < 0 && e.track === this.score!.sticks && (e.data[0]! & 0xf0) === 0x90
  }

  private turn(): { at: number; to: number; pass: boolean } {
    if (this.jump) return { ...this.jump, pass: false }
    const tick = this.anchor.tick
    const l = this.loop
    if (l && tick < l.to + this.shift)
      return { at: l.to + this.shift, to: l.from + (this.shift ? 0 : (l.other ?? 0)), pass: true }
    return { at: this.score!.end, to: this.loop?.from ?? 0, pass: true }
  }

  private comeRound(turn: { at: number; to: number; pass: boolean }) {
    const frame = this.frameAt(turn.at)
    this.silence()
    this.jump = undefined
    if (turn.pass && this.once) {
      this.playing = false
      this.over()
      return
    }
    if (turn.pass) {
      this.anchor.pass++
      const l = this.ladder
      if (l && this.anchor.pass % l.passes === 0) {
        const climbed = this.anchor.tempo + l.step
        const tempo = l.step > 0 ? Math.min(climbed, l.goal) : Math.max(climbed, l.goal)
        const past = l.step > 0 ? this.anchor.tempo >= l.goal : this.anchor.tempo <= l.goal
        if (!past) this.anchor = { ...this.anchor, tempo, framesPerTick: this.pace(tempo) }
      }
    }
    this.place(frame, turn.to)
  }

  private place(frame: number, tick: number) {
    const l = this.loop
    this.shift = l?.other && tick >= l.from + l.other ? l.other : 0
    this.anchor = { ...this.anchor, frame, tick, loop: this.loop }
    const events = this.score!.events
    let low = 0
    let high = events.length
    while (low < high) {
      const mid = (low + high) >> 1
      if (events[mid]!.at < tick) low = mid + 1
      else high = mid
    }
    this.next = low
    // Whoever has changed instruments before this place plays the one he has now, and no bend hangs over.
    const set = (e: SoundEvent) => (e.data[0]! & 0xf0) === 0xc0 || (e.data[0]! & 0xf0) === 0xb0
    for (const e of events.slice(0, low)) if (set(e)) this.hear(e)
    const wheel = events.find((e) => (e.data[0]! & 0xf0) === 0xe0)
    if (wheel) this.hear({ at: tick, track: wheel.track, data: [wheel.data[0]!, 0, 64] })
    this.told(this.anchor)
  }

  private play(e: SoundEvent) {
    const kind = e.data[0]! & 0xf0
    const key = e.track * 128 + e.data[1]!
    if (kind === 0x90 && e.data[2]! > 0) this.sounding.set(key, e)
    else if (kind === 0x80 || kind === 0x90) {
      if (!this.sounding.delete(key)) return
    }
    this.hear(e)
  }

  private silence() {
    for (const e of this.sounding.values())
      this.hear({ at: e.at, track: e.track, data: [0x80 | (e.data[0]! & 0x0f), e.data[1]!, 64] })
    this.sounding.clear()
  }

  private pace(tempo: number) {
    return (this.rate * 60) / tempo / (this.score?.beat ?? quarter)
  }

  private barEnd(tick: number) {
    const all = this.score!.metres
    const i = Math.max(0, all.findLastIndex((m) => m.at <= tick)) // prettier-ignore
    const { at, bar } = all[i]!
    return Math.min(at + (Math.floor((tick - at) / bar) + 1) * bar, all[i + 1]?.at ?? Infinity)
  }

  tickAt(frame: number) {
    return this.anchor.tick + (frame - this.anchor.frame) / this.anchor.framesPerTick
  }

  /** Every pass of a loop begins on a whole frame, so that all are the same to the frame. */
  private frameAt(tick: number) {
    return this.anchor.frame + Math.round((tick - this.anchor.tick) * this.anchor.framesPerTick)
  }
}
