/* How much of each frequency a stretch of sound holds. */
import FFT from 'fft.js'

export class Spectrum {
  private readonly fft: FFT
  private readonly out: number[]
  private readonly input: Float32Array
  private readonly window: Float32Array

  /** size samples, a power of two, shaped by a Hann window over the first length of them. */
  constructor(
    readonly size: number,
    readonly length = size,
  ) {
    this.fft = new FFT(size)
    this.out = this.fft.createComplexArray()
    this.input = new Float32Array(size)
    this.window = Float32Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length))
  }

  /** The magnitudes from 0 to half the sample rate; a full-scale sine is 1. */
  of(samples: Float32Array, into: Float32Array = new Float32Array(this.size / 2)): Float32Array {
    for (let i = 0; i < this.length; i++) this.input[i] = samples[i]! * this.window[i]!
    this.fft.realTransform(this.out, this.input)
    // Not Math.hypot: what it guards against does not come up, and it takes ten times as long.
    for (let k = 0; k < into.length; k++) {
      const [re, im] = [this.out[2 * k]!, this.out[2 * k + 1]!]
      into[k] = (Math.sqrt(re * re + im * im) * 4) / this.length
    }
    return into
  }
}
