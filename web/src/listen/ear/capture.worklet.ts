/* What comes in by the microphone, handed on in stretches of 256 samples: nothing is worked out on the audio thread but which of two sides is alive. */
import { Sides } from './sides'

declare const sampleRate: number
declare const currentFrame: number
declare function registerProcessor(name: string, processor: unknown): void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

const hop = 256

class Capture extends AudioWorkletProcessor {
  private to?: MessagePort
  private over = false
  private readonly sides = new Sides(sampleRate)
  private chunk = new Float32Array(hop)
  private filled = 0

  constructor() {
    super()
    // Told of no port, it is over.
    this.port.onmessage = ({ data }: MessageEvent<{ to?: MessagePort }>) => {
      this.to = data.to
      this.over = !data.to
    }
  }

  process([input]: Float32Array[][]) {
    const samples = input?.[0]
    if (!samples || !this.to) return !this.over
    this.sides.mix(input!, this.chunk, this.filled)
    this.filled += samples.length
    if (this.filled === hop) {
      const { alone } = this.sides
      this.to.postMessage({ frame: currentFrame + samples.length - hop, samples: this.chunk, alone }, [
        this.chunk.buffer,
      ])
      this.chunk = new Float32Array(hop)
      this.filled = 0
    }
    return true
  }
}
registerProcessor('undaris-capture', Capture)
