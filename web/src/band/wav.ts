/* Sound as a WAV file: stereo, 16 bits, as loud as fits. */

/** Of what is collected before it is known how loud it gets: half, so that twice as loud still fits. */
const collected = 0.5
const full = 32767
/** How loud the loudest sample is in the file. */
const peak = 0.97
/** Nothing is made louder than so many times. */
const most = 8

const header = 44

/** Collects sound, a piece at a time. */
export class Wav {
  private readonly pieces: Int16Array[] = []
  private frames = 0
  private loudest = 0

  constructor(private readonly rate: number) {}

  add(left: Float32Array, right: Float32Array) {
    const piece = new Int16Array(2 * left.length)
    for (const [side, sound] of [left, right].entries())
      for (let i = 0; i < left.length; i++) {
        const value = Math.round(Math.max(-1, Math.min(1, sound[i]! * collected)) * full)
        piece[2 * i + side] = value
        this.loudest = Math.max(this.loudest, Math.abs(value))
      }
    this.pieces.push(piece)
    this.frames += left.length
  }

  get seconds() {
    return this.frames / this.rate
  }

  /** Lets the last seconds go down to nothing. */
  fade(seconds: number) {
    let left = Math.min(this.frames, Math.round(seconds * this.rate))
    const all = left
    for (let p = this.pieces.length - 1; p >= 0 && left > 0; p--) {
      const piece = this.pieces[p]!
      const frames = piece.length / 2
      for (let i = Math.max(0, frames - left); i < frames; i++) {
        const level = (frames - 1 - i + (all - left)) / all
        piece[2 * i] = Math.round(piece[2 * i]! * level)
        piece[2 * i + 1] = Math.round(piece[2 * i + 1]! * level)
      }
      left -= frames
    }
  }

  file(): ArrayBuffer {
    const bytes = this.frames * 4
    const out = new ArrayBuffer(header + bytes)
    const view = new DataView(out)
    const text = (at: number, s: string) => [...s].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)))
    text(0, 'RIFF')
    view.setUint32(4, header - 8 + bytes, true)
    text(8, 'WAVEfmt ')
    view.setUint32(16, 16, true)
    view.setUint16(20, 1, true) // PCM
    view.setUint16(22, 2, true)
    view.setUint32(24, this.rate, true)
    view.setUint32(28, this.rate * 4, true)
    view.setUint16(32, 4, true)
    view.setUint16(34, 16, true)
    text(36, 'data')
    view.setUint32(40, bytes, true)
    const gain = this.loudest ? Math.min(most, (peak * full) / this.loudest) : 1
    let at = header
    for (const piece of this.pieces)
      for (const value of piece) {
        view.setInt16(at, Math.round(value * gain), true)
        at += 2
      }
    return out
  }
}
