/*
 * The ear: from 256 samples to the next it tells what it noticed. It does not know
 * what was to be played; whoever does makes notes of it.
 */
import { hop, Onsets } from './onsets'
import { Past } from './past'
import { Salience, type Candidate } from './salience'
import { Sway, type Swaying } from './sway'
import { Voice, type Pitch } from './voice'

export { hop }

/** What the ear noticed; frames count samples since it began to listen. */
export type Observation = { seq: number; frame: number } & (
  | { kind: 'attack' }
  /** of: the seq of the attack or slide it belongs to */
  | { kind: 'settled'; of: number; midi: number; clarity: number }
  /** What the stroke brought, how much of all that sounds is new, and how loud it was. */
  | { kind: 'salience'; of: number; candidates: Candidate[]; fresh: number; level: number }
  /** It came to rest on another pitch: by a jump, or gliding there. */
  | { kind: 'slide' | 'bend'; of: number; midi: number }
  /** It sways so; what of it nobody can tell is left out. Told again, more of it is known. */
  | ({ kind: 'sway'; of: number } & Pick<Swaying, 'width'> & Partial<Swaying>)
  | { kind: 'lost'; of: number }
)

const clear = 0.9
const quicker = 0.02
const near = 0.4 // half steps
const moved = 0.3
/** Hops that a new pitch must hold, and that it may be unclear, before it is told. */
const rests = 5
const fades = 8

type Noticed = Observation extends infer O ? (O extends Observation ? Omit<O, 'seq'> : never) : never

export class Ear {
  private seq = 0
  private readonly past = new Past(32768)
  private readonly onsets: Onsets
  private readonly high: Voice
  private readonly low: Voice
  private readonly salience: Salience
  private readonly sway: Sway
  private readonly window = new Float32Array(1024)
  private noticed: Observation[] = []
  private waiting: { of: number; at: number }[] = []
  private note?: { seq: number; at: number; midi?: number; unclear: number }
  private before?: Pitch
  private rest: { midi: number; hops: number; since: number; glided: boolean } | undefined
  /** The level of the last window, in decibels of full scale. */
  level = -120
  /** Of the last second or so, how much was cut off at full scale: 0 to 1. */
  clipped = 0

  constructor(
    private readonly rate: number,
    /** Decibels of full scale below which nothing is listened to. */
    public gate = -58,
    /** The lowest note that there is. */
    lowest = 38,
    /** And the highest. */
    highest = 88,
  ) {
    const deepest = 440 * 2 ** ((lowest - 0.7 - 69) / 12)
    this.onsets = new Onsets(rate)
    const thin = rate < 24000 ? 1 : 2 // of what comes in thinly all is needed
    this.high = new Voice(rate, 1024, 200, 2500, deepest, thin)
    this.low = new Voice(rate, 2048, 70, 1000, deepest, 2 * thin)
    this.salience = new Salience(rate, lowest, highest)
    this.sway = new Sway(rate)
  }

  /** How many samples were heard. */
  get heard() {
    return this.past.end
  }

  /** The pitch of now, for a tuner. */
  get pitch(): Pitch | undefined {
    return this.before
  }

  private tell(o: Noticed): number {
    this.noticed.push({ seq: ++this.seq, ...o } as Observation)
    return this.seq
  }

  /** Hears the next 256 samples. */
  hear(samples: Float32Array): Observation[] {
    this.noticed = []
    this.past.add(samples)
    const end = this.past.end
    const window = this.past.from(end - this.window.length, this.window)
    this.level = decibels(window)
    this.clipped += (Number(clips(samples)) - this.clipped) * (hop / this.rate)
    const onset = this.onsets.hear(window, end)
    const pitch = this.voiced(this.high.hear(samples), this.low.hear(samples))
    if (onset !== undefined && this.level > this.gate) this.struck(onset)
    this.weigh(end)
    this.follow(this.level > this.gate ? pitch : undefined, end)
    this.before = pitch
    return this.noticed
  }

  /** The lower voice hears the low strings, which the higher one has too short a window for; where both hear something,
   * the clearer one is believed, the quicker one a little more. */
  private voiced(high: Pitch | undefined, low: Pitch | undefined): Pitch | undefined {
    const both = [high, low].map((p) => (p && p.clarity >= clear ? p : undefined))
    if (both[0] && both[1]) return both[1].clarity > both[0].clarity + quicker ? both[1] : both[0]
    return both[0] ?? both[1]
  }

  private struck(at: number) {
    const seq = this.tell({ kind: 'attack', frame: at })
    this.note = { seq, at, unclear: 0 }
    this.rest = undefined
    this.sway.begin()
    this.waiting.push({ of: seq, at })
  }

  /** Looks at what a stroke brought, once enough of it has been heard. */
  private weigh(end: number) {
    const { length } = this.salience
    while (this.waiting[0] && this.waiting[0].at + length <= end) {
      const { of, at } = this.waiting.shift()!
      const before = this.past.from(at - length, new Float32Array(length))
      const after = this.past.from(at, new Float32Array(length))
      this.tell({ kind: 'salience', frame: end, of, level: decibels(after), ...this.salience.of(before, after) })
    }
  }

  private follow(pitch: Pitch | undefined, end: number) {
    const note = this.note
    if (!note) return
    if (!pitch) {
      if (++note.unclear === fades && note.midi !== undefined) {
        this.tell({ kind: 'lost', frame: end, of: note.seq })
        this.note = undefined
      }
      return
    }
    note.unclear = 0
    const steady = this.before && Math.abs(this.before.midi - pitch.midi) < near
    if (note.midi === undefined) {
      // What is heard must be of the new stroke.
      if (steady && end - note.at > 0.024 * this.rate) {
        note.midi = pitch.midi
        this.tell({ kind: 'settled', frame: end, of: note.seq, midi: pitch.midi, clarity: pitch.clarity })
      }
      return
    }
    const sways = this.sway.hear(pitch.midi)
    if (sways) this.tell({ kind: 'sway', frame: end, of: note.seq, ...sways })
    this.move(note as { seq: number; midi: number }, pitch, end)
  }

  /** Another pitch, once it rests. */
  private move(note: { seq: number; midi: number }, pitch: Pitch, end: number) {
    if (Math.abs(pitch.midi - note.midi) < moved) {
      this.rest = undefined
      return
    }
    const rest = this.rest
    if (!rest || Math.abs(rest.midi - pitch.midi) > 0.2) {
      const glided = rest?.glided || (!!this.before && Math.abs(this.before.midi - pitch.midi) < 0.8)
      this.rest = { midi: pitch.midi, hops: 1, since: end, glided }
      return
    }
    if (++rest.hops < rests) return
    note.midi = pitch.midi
    this.rest = undefined
    if (!rest.glided) this.sway.begin()
    this.tell({ kind: rest.glided ? 'bend' : 'slide', frame: rest.since, of: note.seq, midi: pitch.midi })
  }
}

/** Several samples at full scale: what is louder was cut off. */
function clips(samples: Float32Array) {
  let n = 0
  for (const s of samples) if (Math.abs(s) >= 0.985) n++
  return n >= 4
}

function decibels(samples: Float32Array) {
  let sum = 1e-12
  for (const s of samples) sum += s * s
  return 10 * Math.log10(sum / samples.length)
}
