/* What was heard lately, kept to be listened to again: the last minutes, at half the rate. */

const minutes = 4

export class Reel {
  private readonly tape: Int16Array
  private first: number | undefined
  private end = 0

  constructor(readonly rate: number) {
    this.tape = new Int16Array(minutes * 60 * Math.floor(rate / 2))
  }

  /** The next samples, which begin with a frame; what is missing before them is silence. */
  add(frame: number, samples: Float32Array) {
    this.first ??= frame
    const at = Math.floor((frame - this.first) / 2)
    for (; this.end < at; this.end++) this.tape[this.end % this.tape.length] = 0
    for (let i = 0; i + 1 < samples.length; i += 2) {
      const x = (samples[i]! + samples[i + 1]!) / 2
      this.tape[this.end++ % this.tape.length] = Math.round(32767 * Math.max(-1, Math.min(1, x)))
    }
  }

  /** A WAV of what was heard from one frame to another; silent where it is not known. */
  wav(from: number, to: number): ArrayBuffer {
    const rate = Math.floor(this.rate / 2)
    const length = Math.max(0, Math.floor((to - from) / 2))
    const file = new DataView(new ArrayBuffer(44 + 2 * length))
    const text = (at: number, s: string) => [...s].forEach((c, i) => file.setUint8(at + i, c.charCodeAt(0)))
    text(0, 'RIFF')
    file.setUint32(4, 36 + 2 * length, true)
    text(8, 'WAVEfmt ')
    file.setUint32(16, 16, true)
    file.setUint16(20, 1, true)
    file.setUint16(22, 1, true)
    file.setUint32(24, rate, true)
    file.setUint32(28, 2 * rate, true)
    file.setUint16(32, 2, true)
    file.setUint16(34, 16, true)
    text(36, 'data')
    file.setUint32(40, 2 * length, true)
    const begin = Math.floor((from - (this.first ?? from)) / 2)
    for (let i = 0; i < length; i++) {
      const at = begin + i
      const known = at >= 0 && at < this.end && at >= this.end - this.tape.length
      file.setInt16(44 + 2 * i, known ? this.tape[at % this.tape.length]! : 0, true)
    }
    return file.buffer
  }
}
