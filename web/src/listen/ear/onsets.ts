/*
 * Where a note is struck: the flux of a logarithmic spectrum, against what stood
 * two windows before and one bin to either side (Böck and Widmer 2013), so that a
 * vibrato or a slide is not taken for a stroke.
 */
import { Spectrum } from './spectrum'

export const hop = 256
const size = 1024
const behind = 2 // hops that a window is compared with
const reach = 10 // hops that are looked at for what is usual
/** How far the flux must stand out from what is usual, and how many seconds lie between two strokes. */
const sharp = 0.3
const apart = 0.055

export class Onsets {
  private readonly spectrum = new Spectrum(size)
  private readonly before: Float32Array[] = []
  private readonly flux: number[] = []
  private readonly low: number
  private readonly high: number
  private last = -Infinity

  constructor(private readonly rate: number) {
    this.low = Math.max(1, Math.round((120 * size) / rate))
    this.high = Math.min(size / 2 - 1, Math.round((5000 * size) / rate))
  }

  /** Hears the window that ends at a frame; tells the frame of a stroke in it. */
  hear(window: Float32Array, end: number): number | undefined {
    const old = this.before.length > behind ? this.before.shift()! : new Float32Array(size / 2)
    const now = this.spectrum.of(window, old)
    for (let k = 0; k < now.length; k++) now[k] = Math.log10(1 + 1000 * now[k]!)
    const then = this.before[this.before.length - behind]
    this.before.push(now)
    let flux = 0
    if (then)
      for (let k = this.low; k < this.high; k++) {
        const most = Math.max(then[k - 1]!, then[k]!, then[k + 1]!)
        if (now[k]! > most) flux += now[k]! - most
      }
    this.flux.push(flux / Math.sqrt(this.high - this.low))
    if (this.flux.length > reach + 2) this.flux.shift()
    return this.peak(end)
  }

  /** A stroke is the highest of three and stands out from those before it. */
  private peak(end: number) {
    const n = this.flux.length
    if (n < 4) return undefined
    const [a, here, b] = [this.flux[n - 3]!, this.flux[n - 2]!, this.flux[n - 1]!]
    const past = this.flux.slice(0, n - 2).toSorted((x, y) => x - y)
    const usual = past[Math.floor(past.length / 2)]!
    if (here < a || here <= b || here < usual + sharp) return undefined
    // The window of the peak ended one hop ago; what rises in it lies in its later half.
    const at = end - hop - size / 2
    if (at - this.last < apart * this.rate) return undefined
    this.last = at
    return at
  }
}
