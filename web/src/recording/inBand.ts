/*
 * A recording in the place of the band: its beats fall on the ticks of the band's clock, whatever tempo that has, so that the
 * neck, the sheet and the ear follow it as they follow the band. Two voices take turns: where the clock turns (a loop comes
 * round, a chorus is over) the other has the piece that comes next already.
 */
import { quarter } from '../api/facts'
import type { Companion, Turn } from '../band/companion'
import type { Anchor } from '../band/transport'
import { secondOf, type Anchor as Beat } from './inHand'
import type { Course } from './overChart'
import type { Pieces } from './player'
import { resampled } from './sides'
import { Voice } from './voice'

/** Beats of the form that a voice holds, and the second at which that begins. */
interface Held {
  from: number
  to: number
  begin: number
}

/** Seconds that are held before a piece and after it. */
const margin = 0.5
/** Seconds before a turn at which the other voice begins, unheard, and over which it takes over. */
const early = 0.3
const over = 0.03
/** Seconds between two looks at the clock. */
const look = 0.025
/** Longer pieces are held as one side. */
const longStereo = 120

export class RecordInBand implements Companion {
  private context?: AudioContext
  private voices: Voice[] = []
  private held: (Held | undefined)[] = [undefined, undefined]
  private anchor?: Anchor
  private turn?: Turn
  private beat = NaN
  private timer?: ReturnType<typeof setInterval>
  private reading = false
  private run = 0
  private heard: [number, number][] = []
  readonly choruses: number
  readonly tempo: number

  constructor(
    readonly id: number,
    readonly chart: number,
    readonly title: string,
    readonly much: string,
    private readonly of: {
      pieces: Pieces
      /** how far it is read, and that it is */
      read: (progress: (part: number) => void) => Promise<void>
      /** what the ear hears in it between two seconds: beats of the recording and MIDI numbers */
      listen: (from: number, to: number) => Promise<[number, number][]>
      beats: readonly Beat[]
      course: Course
      /** of the form */
      length: number
      /** half steps that bring it in tune */
      pitch: number
      close: () => void
    },
  ) {
    this.choruses = of.course.choruses
    this.tempo = of.course.tempo
  }

  async open(context: AudioContext, to: AudioNode, progress: (part: number) => void) {
    if (this.context === context) return
    await this.of.read(progress)
    this.voices = await Promise.all([Voice.open(context, to), Voice.open(context, to)])
    this.held = [undefined, undefined]
    this.context = context
    this.voices[1]!.fade(0, context.currentTime + over, over)
    await this.hold(1, this.pieceAt(0))
    void this.listen()
  }

  close() {
    this.rest()
    for (const v of this.voices) v.close()
    this.context = undefined
    this.of.close()
  }

  /** What is heard of it by itself, chorus after chorus, while it plays already. */
  private async listen() {
    const { course, length, beats } = this.of
    for (let n = 0; n < course.choruses; n++) {
      const [a, b] = [course.top + n * length, course.top + (n + 1) * length].map((beat) => secondOf(beats, beat)!)
      const notes = await this.of.listen(a!, b!).catch(() => [])
      if (!this.context) return
      this.heard.push(...notes.map(([beat, midi]): [number, number] => [Math.round((beat - course.top) * quarter), midi])) // prettier-ignore
    }
  }

  notes(from: number, to: number) {
    return this.heard.filter(([at]) => at >= from && at < to)
  }

  /** Seconds of the recording at a beat of the form, choruses counted on. */
  private second = (beat: number) => secondOf(this.of.beats, this.of.course.top + beat)!

  /** The piece that a tick lies in: a loop, or a chorus. */
  private pieceAt(tick: number, loop?: Anchor['loop']): { from: number; to: number } {
    const beat = tick / quarter
    if (loop && tick >= loop.from && tick < loop.to) return { from: loop.from / quarter, to: loop.to / quarter }
    const n = Math.max(0, Math.floor(beat / this.of.length))
    return { from: n * this.of.length, to: (n + 1) * this.of.length }
  }

  private has = (i: number, p: { from: number; to: number }) => {
    const h = this.held[i]
    return !!h && h.from <= p.from && h.to >= p.to
  }

  /** Has a voice hold a piece. */
  private async hold(i: number, p: { from: number; to: number }) {
    if (this.has(i, p)) return
    const v = this.voices[i]!
    const begin = this.second(p.from) - margin
    const { sides, rate } = await this.of.pieces.slice(begin, this.second(p.to) + margin)
    const one = sides.length > 1 && sides[0]!.length > longStereo * rate ? [sides[0]!.map((l, k) => (l + sides[1]![k]!) / 2)] : sides // prettier-ignore
    await v.load(rate === this.context!.sampleRate ? one : await resampled(one, rate, this.context!.sampleRate))
    v.tune(this.of.pieces.loud(), 20, 20000)
    // A turn of the voices meanwhile takes what they hold along.
    this.held[this.voices.indexOf(v)] = { ...p, begin }
  }

  private timeOf(tick: number, a = this.anchor!) {
    return (a.frame + (tick - a.tick) * a.framesPerTick) / this.context!.sampleRate
  }

  /** Has a voice play on from a tick, from the moment at which the clock is there. */
  private sound(i: number, tick: number, a = this.anchor!) {
    const beat = Math.floor(tick / quarter)
    const [from, to] = [this.second(beat), this.second(beat + 1)]
    const seconds = (a.framesPerTick * quarter) / this.context!.sampleRate
    const input = from + (tick / quarter - beat) * (to - from) - this.held[i]!.begin
    this.voices[i]!.play(this.timeOf(tick, a), input, (to - from) / seconds, this.of.pitch)
  }

  follow(a: Anchor, turn: Turn) {
    const context = this.context
    if (!context) return
    const was = this.anchor
    this.anchor = a
    this.turn = turn
    clearInterval(this.timer)
    this.timer = setInterval(() => void this.ahead(), 1000 * look)
    if (a.tick < 0) return void this.ahead()
    // Where the clock is where it was expected, or only goes at another pace, the voice goes on.
    const expected = was && !Number.isNaN(this.beat) && this.has(0, this.pieceAt(a.tick, a.loop)) && Math.abs(this.timeOf(a.tick, was) - a.frame / context.sampleRate) < 0.02 // prettier-ignore
    if (expected) return this.sound(0, Math.max(a.tick, this.tickAt(context.currentTime)))
    void this.begin()
  }

  private tickAt(time: number) {
    const a = this.anchor!
    return a.tick + (time * this.context!.sampleRate - a.frame) / a.framesPerTick
  }

  /** Goes to where the clock is, unforeseen. */
  private async begin() {
    const run = ++this.run
    const context = this.context!
    const p = this.pieceAt(this.anchor!.tick, this.anchor!.loop)
    if (!this.has(0, p)) {
      this.voices[0]!.rest(context.currentTime)
      if (this.has(1, p)) this.turnRound()
      else await this.hold(0, p)
    }
    if (run !== this.run || !this.anchor) return
    const tick = Math.max(this.anchor.tick, this.tickAt(context.currentTime))
    const at = Math.max(context.currentTime, this.timeOf(this.anchor.tick) - over / 2)
    this.voices[1]!.rest(at + over)
    this.voices[0]!.fade(1, at + over, over)
    this.sound(0, tick)
    this.beat = Math.floor(tick / quarter)
  }

  /** Looks a little ahead: the next beat has a length of its own, and what comes after a turn is held by the other voice. */
  private async ahead() {
    const [context, a, turn] = [this.context, this.anchor, this.turn]
    if (!context || !a) return
    const soon = this.tickAt(context.currentTime + 2 * look)
    const beat = Math.floor(soon / quarter)
    if (
      beat !== this.beat &&
      beat >= 0 &&
      beat * quarter > a.tick &&
      !Number.isNaN(this.beat) &&
      this.has(0, this.pieceAt(beat * quarter, a.loop))
    ) {
      // prettier-ignore
      this.beat = beat
      this.sound(0, beat * quarter)
    }
    if (this.reading || !turn) return
    // Where nothing turns before the chorus is over, the next chorus comes.
    const chorus = this.pieceAt(Math.max(0, a.tick, soon)).to * quarter
    const next = turn.at <= chorus || a.tick < 0 ? turn : { at: chorus, to: chorus }
    const p = this.pieceAt(next.to, a.loop)
    if (!this.has(1, p)) {
      this.reading = true
      await this.hold(1, p).catch(() => undefined)
      this.reading = false
      return
    }
    const when = this.timeOf(next.at)
    if (when - context.currentTime > early || when < context.currentTime) return
    // From there on the clock is expected to go so; what it tells then is only more exact.
    this.anchor = { ...a, frame: when * context.sampleRate, tick: next.to }
    this.turn = next === turn ? undefined : turn
    const [old, fresh] = this.voices as [Voice, Voice]
    this.turnRound()
    this.sound(0, next.to)
    this.beat = Math.floor(next.to / quarter)
    fresh.fade(1, when + over / 2, over)
    old.fade(0, when + over / 2, over)
    setTimeout(() => this.voices[1] === old && old.rest(context.currentTime), 1000 * (when - context.currentTime + 2 * over)) // prettier-ignore
  }

  private turnRound() {
    this.voices.reverse()
    this.held.reverse()
  }

  rest() {
    this.run++
    clearInterval(this.timer)
    const now = this.context?.currentTime ?? 0
    if (this.anchor) this.voices[0]?.fade(0, now + over, over)
    for (const v of this.voices) v.rest(now + over)
    this.anchor = this.turn = undefined
    this.beat = NaN
  }
}
