/*
 * Plays a recording: a loop or on to its end, as slowly as is wanted at the same pitch, higher or lower, one side or what is
 * only in the middle, between two frequencies. What comes next is planned ahead as stretches of input, so that a round can
 * be slower than the one before, and a gap can follow it. A line that was written down sounds beside it, stretched alike.
 */
import { mixOf, resampled, type Side } from './sides'
import { Voice } from './voice'

export interface How {
  /** 0.25 to 1 */
  rate: number
  /** half steps, with their part: 0.3 is 30 cents */
  pitch: number
  side: Side
  /** hertz that are let through */
  low: number
  high: number
  /** 0 to 1 */
  volume: number
}

export const usual: How = { rate: 1, pitch: 0, side: 'both', low: 20, high: 20000, volume: 0.4 }

/** What a player gets pieces of a recording from. */
export interface Pieces {
  slice: (from: number, to: number) => Promise<{ sides: Float32Array[]; rate: number }>
  seconds: () => number
  /** decibels of full scale, in the middle */
  loud: () => number
}

/** How a written line is set against the recording. */
export type Against = 'record' | 'line' | 'both' | 'sides' | 'turns'

export interface Round {
  /** from 0 */
  n: number
  /** it is the player's turn: nothing sounds */
  gap: boolean
  rate: number
}

/** What is planned: from a moment of the context's clock on, the recording from a second on; input is where that lies in what
 * was loaded. */
interface Planned extends Round {
  out: number
  end: number
  from: number
  input: number
}

/** Seconds that are known before a stretch and after it. */
const margin = 0.35
/** Of a recording that plays on, so much is read at once, and so long before it is needed. */
const piece = 30
const early = 8
/** Seconds over which one piece goes over into the next. */
const over = 0.03
/** Loops are at most this long. */
export const longestLoop = 240
/** Seconds from a press to the sound, so that the first stroke is whole. */
const soon = 0.08

export class Player {
  private plan: Planned[] = []
  /** Seconds of the recording that are in the record's voice: from where, and up to where. */
  private begin = 0
  private loaded = 0
  private timer?: ReturnType<typeof setInterval>
  private loop?: [number, number]
  private run = 0
  private round = 0
  private first = 0
  private reading = false
  private line?: { from: number; seconds: number; length: number }
  private against: Against = 'record'
  onRound: (r: Round) => void = () => {}
  onEnd: () => void = () => {}
  /** What a round is played at, and whether a gap follows it. */
  next: (n: number) => { rate: number; gap: boolean }

  private constructor(
    readonly context: AudioContext,
    /** One plays; where a recording plays on, the other takes the next piece. */
    private readonly records: [Voice, Voice],
    private readonly guitar: Voice,
    private readonly volume: GainNode,
    private readonly pieces: Pieces,
    public how: How,
  ) {
    this.next = () => ({ rate: this.how.rate, gap: false })
  }

  static async open(pieces: Pieces, how: How): Promise<Player> {
    const context = new AudioContext({ latencyHint: 'interactive' })
    const volume = new GainNode(context, { gain: how.volume })
    volume.connect(context.destination)
    const [one, other, guitar] = await Promise.all([0, 1, 2].map(() => Voice.open(context, volume)))
    return new Player(context, [one!, other!], guitar!, volume, pieces, how)
  }

  close() {
    this.stop()
    void this.context.close()
  }

  /** The voice of the record that plays. */
  private get record() {
    return this.records[0]
  }

  get playing() {
    return this.plan.length > 0
  }

  /** Plays a loop, or from a second on. lead: seconds to wait for, such as a count-in. */
  async play(from: number, loop?: [number, number], lead = 0, round = 0): Promise<void> {
    const run = ++this.run
    await this.context.resume()
    this.loop = loop && loop[1] - loop[0] <= longestLoop ? loop : undefined
    this.round = this.first = round
    const [a, b] = this.loop ?? [from, Math.min(this.pieces.seconds(), from + piece)]
    const begin = Math.max(0, a - margin)
    const end = Math.min(this.pieces.seconds(), b + margin)
    const sides = await this.sides(begin, end)
    if (run !== this.run) return
    const at = (second: number) => Math.round((second - begin) * this.context.sampleRate)
    await this.record.load(this.loop ? sides.map((s) => goingRound(s, at(a), at(b), at(begin + seam))) : sides)
    if (run !== this.run) return
    this.begin = begin
    this.loaded = end
    this.plan = []
    this.tune()
    for (const v of this.records) v.fade(v === this.record ? 1 : 0, this.context.currentTime, 0.001)
    this.put(this.context.currentTime + soon + lead, from, this.loop ? b : this.pieces.seconds())
    clearInterval(this.timer)
    this.timer = setInterval(() => void this.ahead(), 60)
  }

  stop() {
    this.run++
    clearInterval(this.timer)
    if (this.plan.length) for (const v of [...this.records, this.guitar]) v.rest(this.context.currentTime)
    this.plan = []
  }

  /** A piece as it is heard: at the context's rate, its sides as they are chosen. */
  private async sides(from: number, to: number): Promise<Float32Array[]> {
    const { sides, rate } = await this.pieces.slice(from, to)
    const mixed = mixOf(sides, this.how.side)
    return rate === this.context.sampleRate ? mixed : resampled(mixed, rate, this.context.sampleRate)
  }

  /** A written line that sounds from a second of the recording on, for as long as that takes there. */
  async beside(sound: { sides: Float32Array[]; rate: number; seconds: number } | undefined, from = 0, length = 0) {
    this.line = undefined
    if (!sound) return
    const { sides, rate } = sound
    await this.guitar.load(rate === this.context.sampleRate ? sides : await resampled(sides, rate, this.context.sampleRate)) // prettier-ignore
    this.line = { from, seconds: sound.seconds, length }
  }

  /** How the line is set against the recording. */
  set(against: Against) {
    this.against = against
    for (const v of this.records) v.place(against === 'sides' ? -1 : 0)
    this.guitar.place(against === 'sides' ? 1 : 0)
    if (this.playing) this.turnNow()
  }

  /** Has both voices play the recording from a second on, from a moment of the context's clock on. */
  private sound({ n, out, from, rate, input }: Planned) {
    const a = this.line ? this.against : 'record'
    const [record, line] = [a !== 'line' && !(a === 'turns' && n % 2), a !== 'record' && !(a === 'turns' && n % 2 === 0)] // prettier-ignore
    if (record) this.record.play(out, input, rate, this.how.pitch)
    else this.record.rest(out)
    const l = this.line
    if (line && l)
      this.guitar.play(out, ((from - l.from) * l.seconds) / l.length, (rate * l.seconds) / l.length, this.how.pitch) // prettier-ignore
    else this.guitar.rest(out)
  }

  private put(out: number, from: number, to: number) {
    const { rate, gap } = this.next(this.round)
    const length = (to - from) / rate
    const loop = this.loop
    // From the second round on it is the one laid behind the first, before which lies what is heard before it.
    const input = from - this.begin + (loop && this.round > this.first ? loop[1] - loop[0] : 0)
    const p: Planned = { n: this.round, gap: false, rate, out, end: out + length, from, input }
    this.plan.push(p)
    this.sound(p)
    if (loop && gap) {
      this.plan.push({ ...p, gap: true, out: p.end, end: p.end + length })
      for (const v of [this.record, this.guitar]) v.rest(p.end)
    }
    this.round++
  }

  /** Plans the next round, reads the next piece, and tells what has begun. */
  private async ahead() {
    const now = this.context.currentTime
    const last = this.plan.at(-1)
    if (!last) return
    while (this.plan.length > 1 && this.plan[1]!.out <= now) {
      this.plan.shift()
      this.onRound(this.plan[0]!)
    }
    if (this.loop) {
      if (last.end - now < 0.4) this.put(last.end, this.loop[0], this.loop[1])
      return
    }
    if (now > last.end) {
      this.stop()
      return this.onEnd()
    }
    const here = this.now()
    const until = this.pieces.seconds()
    if (here === undefined || this.reading || this.loaded >= until || here < this.loaded - early) return
    this.reading = true
    const [run, from, to] = [this.run, Math.max(0, this.loaded - 2 * margin), Math.min(until, this.loaded + piece)]
    const next = this.records[1]
    await next.load(await this.sides(from, to))
    // It goes over where both have it.
    const p = this.plan.at(-1)
    const turn = from + margin
    const out = p && p.out + (turn - p.from) / p.rate
    if (run === this.run && p && out && out > this.context.currentTime + soon) {
      this.plan.push({ ...p, out, from: turn, input: margin })
      next.tune(this.pieces.loud(), this.how.low, this.how.high)
      next.play(out, margin, p.rate, this.how.pitch)
      next.fade(1, out + over, over)
      this.record.fade(0, out + over, over)
      this.record.rest(out + 4 * over)
      this.records.reverse()
      this.begin = from
      this.loaded = to
    }
    this.reading = false
  }

  /** The second of the recording that is heard; nothing where nothing plays, or it is the player's turn. */
  now(): number | undefined {
    const t = this.context.currentTime - (this.context.outputLatency || 0)
    const p = this.plan.findLast((p) => p.out <= t) ?? this.plan[0]
    if (!p || p.gap || t < p.out - 0.001 || t > p.end) return undefined
    return p.from + (t - p.out) * p.rate
  }

  /** Seconds until what is planned begins; 0 where it has. */
  get lead() {
    return Math.max(0, (this.plan[0]?.out ?? 0) - this.context.currentTime)
  }

  /** Where in a gap the player is, as a second of the recording; and of what has begun, since when. */
  turn(): number | undefined {
    const t = this.context.currentTime
    const p = this.plan.findLast((p) => p.out <= t)
    return p?.gap ? p.from + (t - p.out) * p.rate : undefined
  }

  /** Changes how it is heard, at once. */
  async change(change: Partial<How>) {
    const before = this.how
    this.how = { ...before, ...change }
    this.volume.gain.setTargetAtTime(this.how.volume, this.context.currentTime, 0.02)
    this.tune()
    if (!this.playing) return
    if (this.how.side !== before.side) {
      // Other sides are other sound: it goes on where it is.
      const at = this.now()
      if (at !== undefined) await this.play(at, this.loop, 0, Math.max(0, this.round - 1))
    } else if (this.how.rate !== before.rate || this.how.pitch !== before.pitch) this.turnNow()
  }

  /** From now on at another speed or pitch, in the middle of a round. */
  private turnNow() {
    const now = this.context.currentTime
    const p = this.plan.findLast((x) => x.out <= now)
    if (!p || p.gap) return
    const { rate } = this.next(p.n)
    const to = p.from + (p.end - p.out) * p.rate
    const on = (now - p.out) * p.rate
    const turned: Planned = { n: p.n, gap: false, rate, out: now, end: now + (to - p.from - on) / rate, from: p.from + on, input: p.input + on } // prettier-ignore
    // What was planned behind it comes at another time now.
    this.round = p.n + 1
    this.plan = [turned]
    this.sound(turned)
  }

  private tune() {
    for (const v of this.records) v.tune(this.pieces.loud(), this.how.low, this.how.high)
    this.guitar.tune(-20, 20, 20000)
  }

  /** Clicks at moments of the context's clock, for a count-in. */
  click(times: number[]) {
    for (const at of times) {
      const tone = new OscillatorNode(this.context, { frequency: 1500, type: 'triangle' })
      const shape = new GainNode(this.context, { gain: 0 })
      shape.gain.setValueAtTime(0.25, at)
      shape.gain.exponentialRampToValueAtTime(0.001, at + 0.05)
      tone.connect(shape).connect(this.volume)
      tone.start(at)
      tone.stop(at + 0.06)
    }
  }
}

/** Seconds over which the end of a round goes over into what comes before its beginning. */
const seam = 0.012

/**
 * A loop laid end to end: what comes before it, it, it again and a little of it. Its end leads into its beginning; before the
 * second lies the same as is heard before each round, so that to begin there once more is no jump.
 */
export function goingRound(sound: Float32Array, from: number, to: number, over: number): Float32Array {
  const lap = sound.slice(from, to)
  const n = Math.min(over, from, Math.floor(lap.length / 2))
  for (let i = 0; i < n; i++) {
    const part = (i + 1) / (n + 1)
    const at = lap.length - n + i
    lap[at] = lap[at]! * (1 - part) + sound[from - n + i]! * part
  }
  const tail = lap.subarray(0, 30 * over)
  const out = new Float32Array(from + 2 * lap.length + tail.length)
  out.set(sound.subarray(0, from))
  for (const [i, part] of [lap, lap, tail].entries()) out.set(part, from + i * lap.length)
  return out
}
