/* The last of what was heard, to look back at. */
export class Past {
  private readonly ring: Float32Array
  /** The frame after the last one that is held. */
  end = 0

  constructor(readonly size: number) {
    this.ring = new Float32Array(size)
  }

  add(samples: Float32Array) {
    for (const s of samples) this.ring[this.end++ % this.size] = s
  }

  /** Samples from a frame on; silence where they are not held. */
  from(frame: number, into: Float32Array): Float32Array {
    for (let i = 0; i < into.length; i++) {
      const at = frame + i
      into[i] = at >= 0 && at < this.end && at >= this.end - this.size ? this.ring[at % this.size]! : 0
    }
    return into
  }
}
