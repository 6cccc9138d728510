/* Whether a held note sways: its pitch goes up and down evenly, as with vibrato. */
import { hop } from './onsets'

/** Seconds that are looked at, and from when on something can be said. */
const looks = 0.5
const least = 0.36
/** Sways a second, and half steps either way. */
const rates = [2.5, 9]
const widths = [0.05, 0.8]

export class Sway {
  private pitches: number[] = []
  private told = false

  constructor(private readonly rate: number) {}

  /** Another note, or another pitch of it. */
  begin() {
    this.pitches = []
    this.told = false
  }

  /** The pitch of the next 256 samples; gives how far it sways either way, once for each note. */
  hear(midi: number): number | undefined {
    if (this.told) return undefined
    const second = this.rate / hop
    this.pitches.push(midi)
    if (this.pitches.length > looks * second) this.pitches.shift()
    const seconds = this.pitches.length / second
    if (seconds < least) return undefined
    const sorted = this.pitches.toSorted((a, b) => a - b)
    const at = (part: number) => sorted[Math.round(part * (sorted.length - 1))]!
    const width = (at(0.95) - at(0.05)) / 2
    if (width < widths[0]! || width > widths[1]!) return undefined
    // From one side to the other, not counting what trembles about the middle.
    const middle = (at(0.95) + at(0.05)) / 2
    let side = 0
    let turns = 0
    for (const p of this.pitches) {
      const now = p > middle + width * 0.4 ? 1 : p < middle - width * 0.4 ? -1 : side
      if (side && now !== side) turns++
      side = now
    }
    const rate = turns / 2 / seconds
    if (turns < 3 || rate < rates[0]! || rate > rates[1]!) return undefined
    this.told = true
    return width
  }
}
