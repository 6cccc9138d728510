/* Decoded sound as it is held: sixteen bits a sample, one side or two, in pieces of some seconds. */

const piece = 1 << 19

export class Tape {
  private readonly pieces: Int16Array[][] = []
  /** Samples that are on it. */
  length = 0
  constructor(
    readonly rate: number,
    readonly channels: 1 | 2,
  ) {}

  get seconds() {
    return this.length / this.rate
  }

  /** Adds what comes next, each side as long as the other. */
  add(sides: Float32Array[]) {
    const n = sides[0]!.length
    for (let done = 0; done < n;) {
      const at = this.length % piece
      if (!at) this.pieces.push(Array.from({ length: this.channels }, () => new Int16Array(piece)))
      const some = Math.min(n - done, piece - at)
      this.pieces.at(-1)!.forEach((to, c) => {
        const from = sides[Math.min(c, sides.length - 1)]!
        for (let i = 0; i < some; i++) to[at + i] = Math.round(32767 * Math.max(-1, Math.min(1, from[done + i]!)))
      })
      this.length += some
      done += some
    }
  }

  /** One side from a sample on; silence beyond its ends. */
  read(side: number, from: number, into: Float32Array): Float32Array {
    const c = Math.min(side, this.channels - 1)
    for (let i = 0; i < into.length;) {
      const at = from + i
      if (at < 0 || at >= this.length) {
        into[i++] = 0
        continue
      }
      const of = this.pieces[Math.floor(at / piece)]![c]!
      const begin = at % piece
      const some = Math.min(into.length - i, piece - begin, this.length - at)
      for (let k = 0; k < some; k++) into[i + k] = of[begin + k]! / 32767
      i += some
    }
    return into
  }

  /** Both sides as one. */
  mono(from: number, into: Float32Array): Float32Array {
    this.read(0, from, into)
    if (this.channels === 1) return into
    const other = this.read(1, from, new Float32Array(into.length))
    for (let i = 0; i < into.length; i++) into[i] = (into[i]! + other[i]!) / 2
    return into
  }
}

/** Of as many sides as a file has, two or one: what stands in the middle or behind goes to both, as films have it. */
export function twoSides(sides: Float32Array[]): Float32Array[] {
  if (sides.length <= 2) return sides
  const [left, right] = [Float32Array.from(sides[0]!), Float32Array.from(sides[1]!)]
  const add = (to: Float32Array, from: Float32Array | undefined, part: number) => {
    if (from) for (let i = 0; i < to.length; i++) to[i] = to[i]! + part * from[i]!
  }
  const middle = sides.length === 3 || sides.length >= 5 ? sides[2] : undefined
  const behind = sides.length >= 6 ? sides.slice(4, 6) : sides.slice(middle ? 3 : 2, middle ? 5 : 4)
  for (const [to, back] of [
    [left, behind[0]],
    [right, behind[1] ?? behind[0]],
  ] as const) {
    add(to, middle, 0.707)
    add(to, back, 0.707)
    for (let i = 0; i < to.length; i++) to[i] = to[i]! / 1.7
  }
  return [left, right]
}
