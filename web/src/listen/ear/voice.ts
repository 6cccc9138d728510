/* The pitch of one sounding note: McLeod's method on what a band of frequencies holds. */
import { PitchDetector } from 'pitchy'

/** A filter of the second order (Bristow-Johnson's cookbook). */
class Biquad {
  private x1 = 0
  private x2 = 0
  private y1 = 0
  private y2 = 0
  private readonly b: [number, number, number]
  private readonly a: [number, number]

  constructor(kind: 'low' | 'high', hertz: number, rate: number) {
    const w = (2 * Math.PI * hertz) / rate
    const alpha = Math.sin(w) / Math.SQRT2
    const c = Math.cos(w)
    const edge = kind === 'low' ? (1 - c) / 2 : (1 + c) / 2
    const a0 = 1 + alpha
    this.b = [edge / a0, (kind === 'low' ? 1 - c : -(1 + c)) / a0, edge / a0]
    this.a = [(-2 * c) / a0, (1 - alpha) / a0]
  }

  next(x: number) {
    const y = this.b[0] * x + this.b[1] * this.x1 + this.b[2] * this.x2 - this.a[0] * this.y1 - this.a[1] * this.y2
    this.x2 = this.x1
    this.x1 = x
    this.y2 = this.y1
    this.y1 = y
    return y
  }
}

export interface Pitch {
  /** a MIDI number with its part */
  midi: number
  /** 0 to 1 */
  clarity: number
}

export class Voice {
  private readonly filters: Biquad[]
  private readonly window: Float32Array
  private readonly detector: PitchDetector<Float32Array>
  private readonly rate: number

  /** Listens to so many samples, from one frequency to another in hertz; of what is filtered so, one sample in thin is
   * enough. */
  constructor(
    rate: number,
    size: number,
    from: number,
    private readonly to: number,
    /** Hertz that a string sounds at least. */
    private readonly lowest: number,
    private readonly thin: number,
  ) {
    this.filters = [new Biquad('high', from, rate), new Biquad('low', to, rate)]
    this.rate = rate / thin
    this.window = new Float32Array(size / thin)
    this.detector = PitchDetector.forFloat32Array(size / thin)
  }

  hear(samples: Float32Array): Pitch | undefined {
    const { window, thin } = this
    window.copyWithin(0, samples.length / thin)
    const at = window.length - samples.length / thin
    const [high, low] = this.filters as [Biquad, Biquad]
    for (let i = 0; i < samples.length; i++) {
      const x = low.next(high.next(samples[i]!))
      if (i % thin === 0) window[at + i / thin] = x
    }
    const [hertz, clarity] = this.detector.findPitch(window, this.rate)
    if (!(hertz > Math.max(this.lowest, (1.6 * this.rate) / window.length)) || hertz > this.to) return undefined
    return { midi: 69 + 12 * Math.log2(hertz / 440), clarity }
  }
}
