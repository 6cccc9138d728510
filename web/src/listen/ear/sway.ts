/* Whether a held note sways: its pitch goes up and down evenly, as with vibrato. And how: as often, as evenly, back to where. */
import { hop } from './onsets'

/** Seconds that are looked at, until it is known that it sways and then, and from when on something can be said. */
const looks = [0.6, 1.2]
const least = 0.36
/** It is told again, better known, so many seconds later, and so often at most. */
const again = 0.4
const most = 4
/** Sways a second, and half steps either way. */
const rates = [2.2, 11]
const widths = [0.05, 1.05]
/** Whole sways that tell whether they are even. */
const whole = 3

export interface Swaying {
  /** half steps either way */
  width: number
  /** how often a second */
  rate: number
  /** by how much its sways differ in length, a part of them; 0 where too few were heard */
  uneven: number
  /** the MIDI number that it comes back to */
  low: number
}

export class Sway {
  private pitches: number[] = []
  private told = 0
  private since = 0

  constructor(private readonly rate: number) {}

  /** Another note, or another pitch of it. */
  begin() {
    this.pitches = []
    this.told = this.since = 0
  }

  /** The pitch of the next 256 samples; tells how it sways once that is known, and again where more of it is. */
  hear(midi: number): Swaying | undefined {
    const second = this.rate / hop
    this.pitches.push(midi)
    if (this.pitches.length > looks[this.told ? 1 : 0]! * second) this.pitches.shift()
    this.since++
    if (this.told >= most || this.since < (this.told ? again : least) * second) return undefined
    const found = this.found(second)
    if (found) {
      this.told++
      this.since = 0
    }
    return found
  }

  private found(second: number): Swaying | undefined {
    const sorted = this.pitches.toSorted((a, b) => a - b)
    const at = (part: number) => sorted[Math.round(part * (sorted.length - 1))]!
    const width = (at(0.95) - at(0.05)) / 2
    if (width < widths[0]! || width > widths[1]!) return undefined
    // From one side to the other, not counting what trembles about the middle.
    const middle = (at(0.95) + at(0.05)) / 2
    const turns = turning(this.pitches, middle, width * 0.4)
    const [first, last] = [turns[0], turns.at(-1)]
    if (turns.length < 3 || !first || !last) return undefined
    const rate = ((turns.length - 1) / 2 / (last.at - first.at)) * second
    if (rate < rates[0]! || rate > rates[1]!) return undefined
    return { width, rate, uneven: unevenness(turns.map((t) => t.at)), low: lows(turns) ?? at(0.05) }
  }
}

interface Turn {
  at: number
  /** 1 where it goes up. */
  way: number
  /** How far it went before it turned. */
  furthest: number
}

/** Where a pitch crosses from one side of a middle to the other, by more than a tremble; between two hops as it is steep. */
function turning(pitches: number[], middle: number, tremble: number): Turn[] {
  const turns: Turn[] = []
  let side = 0
  let furthest = middle
  let crossed = 0
  pitches.forEach((p, i) => {
    const before = pitches[i - 1] ?? p
    if (before < middle !== p < middle) crossed = i - 1 + (middle - before) / (p - before)
    const now = p > middle + tremble ? 1 : p < middle - tremble ? -1 : side
    if (side && now !== side) {
      turns.push({ at: crossed, way: now, furthest })
      furthest = p
    } else if (now > 0 ? p > furthest : p < furthest) furthest = p
    side = now
  })
  return turns
}

/** By how much whole sways differ in length, the middle of it as a part of them. */
function unevenness(at: number[]): number {
  const sways = at.slice(2).map((t, i) => t - at[i]!)
  if (sways.length < whole) return 0
  const usual = median(sways)
  return median(sways.map((s) => Math.abs(s - usual))) / usual
}

/** The pitch that it comes back to: the middle one of the lowest, where at least two are known. */
function lows(turns: Turn[]): number | undefined {
  const low = turns.filter((t, i) => i > 0 && t.way > 0).map((t) => t.furthest)
  return low.length > 1 ? median(low) : undefined
}

function median(list: number[]): number {
  return list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]!
}
