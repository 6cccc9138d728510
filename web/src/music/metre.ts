/* How beats lie in bars: usually so many in each, but a bar may have a number of its own. */

/** What is known of a form: so many bars of so many beats, and how many each has where they differ. */
export interface Bars {
  beats: number
  bars: number
  lengths?: number[] | null
}

export class Metre {
  /** The beat from the top on which each bar begins, and on which the last is over. */
  private readonly starts = [0]
  constructor(
    private readonly beats: number,
    lengths: readonly number[],
  ) {
    for (const n of lengths) this.starts.push(this.length + n)
  }
  get bars() {
    return this.starts.length - 1
  }
  /** The whole in beats. */
  get length() {
    return this.starts.at(-1)!
  }
  /** The beat on which a bar begins, from 0; before the first and behind the last they are as usual. */
  startOf(bar: number): number {
    if (bar < 0) return bar * this.beats
    return this.starts[bar] ?? this.length + (bar - this.bars) * this.beats
  }
  beatsOf(bar: number): number {
    return this.startOf(bar + 1) - this.startOf(bar)
  }
  /** The bar in which a beat lies, and which beat of it, both from 0. */
  at(beat: number): { bar: number; beat: number } {
    let bar = Math.floor(beat / this.beats)
    if (beat >= this.length) bar = this.bars + Math.floor((beat - this.length) / this.beats)
    else if (beat >= 0) bar = this.starts.findLastIndex((s) => s <= beat)
    return { bar, beat: beat - this.startOf(bar) }
  }
}

export const metreOf = ({ beats, bars, lengths }: Bars) =>
  new Metre(beats, lengths ?? Array<number>(Math.max(0, bars)).fill(beats))

/** The bars of a sheet. */
export const metreOfSheet = (bars: readonly { beats: number }[]) =>
  new Metre(bars[0]?.beats ?? 4, bars.map((b) => b.beats)) // prettier-ignore

/** What is known of the bars of a written line, without its pickup. */
export function barsOf(score: { beats: number; measures: readonly { number: number; beats: number }[] }) {
  const bars = score.measures.filter((m) => m.number > 0)
  return { beats: score.beats, bars: bars.length, lengths: bars.map((m) => m.beats) }
}
