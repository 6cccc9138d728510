/*
 * Which notes a stroke brought: the sums of harmonics in the 85 ms after it, less
 * those in the 85 ms before, so that what rings on and the band beneath it do not
 * count.
 */
import { Spectrum } from './spectrum'

export const span = 0.085 // seconds
const size = 8192
const harmonics = 8
const falling = 0.84
/** Hertz that two tones must lie apart to be two in a sound of that length. */
const apart = 1.4 / span

/** A note and how strongly the stroke brought it; the strongest is 1. */
export type Candidate = [midi: number, strength: number]

export class Salience {
  private readonly spectrum: Spectrum
  readonly length: number
  /** Hertz beneath which there is something to hear. */
  private readonly most: number

  constructor(
    private readonly rate: number,
    private readonly lowest: number,
    private readonly highest: number,
  ) {
    this.length = Math.round(span * rate)
    this.spectrum = new Spectrum(size, this.length)
    this.most = Math.min(5000, 0.48 * rate)
  }

  /** The five strongest, and how much of all that sounds after the stroke is new, from 0 to 1. */
  of(before: Float32Array, after: Float32Array): { candidates: Candidate[]; fresh: number } {
    const [b, a] = [this.spectrum.of(before), this.spectrum.of(after)]
    let [rise, whole] = [0, 1e-9]
    const low = Math.floor((70 * size) / this.rate)
    const high = Math.ceil((3000 * size) / this.rate)
    for (let k = low; k < high; k++) {
      whole += a[k]!
      rise += Math.max(0, a[k]! - b[k]!)
    }
    const sums: number[] = []
    for (let midi = this.lowest; midi <= this.highest; midi++) {
      const hertz = 440 * 2 ** ((midi - 69) / 12)
      let sum = 0
      for (let h = 1, w = 1; h <= harmonics && h * hertz < this.most; h++, w *= falling) {
        // The strongest within a third of a half step of it.
        const from = Math.floor((h * hertz * size) / this.rate / 1.02)
        const to = Math.ceil((h * hertz * size * 1.02) / this.rate)
        let [then, now] = [0, 0]
        for (let k = from; k <= to; k++) {
          then = Math.max(then, b[k]!)
          now = Math.max(now, a[k]!)
        }
        // Where half steps lie closer than what so short a sound can tell apart, all of them have it.
        const told = Math.min(1, (0.0595 * h * hertz) / apart)
        sum += w * (0.6 + 0.4 * told) * Math.sqrt(Math.max(0, now - then))
      }
      sums.push(sum)
    }
    const most = Math.max(...sums, 1e-9)
    const candidates = sums
      .map((s, i): Candidate => [this.lowest + i, s / most])
      .filter(([, s], i) => s > 0.2 && sums[i]! >= (sums[i - 1] ?? 0) && sums[i]! >= (sums[i + 1] ?? 0))
      .sort((x, y) => y[1] - x[1])
      .slice(0, 5)
    return { candidates, fresh: rise / whole }
  }
}
