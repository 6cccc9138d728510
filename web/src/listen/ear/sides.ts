/* One signal of what comes in by one side or two. */

/** How much of the louder side a side has that is alive: beneath 26 dB it is a cable without a plug, or noise. */
const dead = 0.05
/** Seconds after which a side's level has followed. */
const follows = 1

export class Sides {
  private readonly levels = [0, 0]
  constructor(private readonly rate: number) {}

  /** Into one: what both sides have in common, or the one that is alive. */
  mix(input: Float32Array[], into: Float32Array, at: number): void {
    const [left, right] = input
    if (!left) return
    if (!right) return into.set(left, at)
    const follow = Math.min(1, left.length / (follows * this.rate))
    this.levels.forEach((l, k) => (this.levels[k] = l + (power(k ? right : left) - l) * follow))
    const alone = this.alone
    if (alone !== undefined) return into.set(alone ? right : left, at)
    for (let i = 0; i < left.length; i++) into[at + i] = (left[i]! + right[i]!) / 2
  }

  /** The side that is listened to by itself, 0 or 1, since the other is dead. */
  get alone(): 0 | 1 | undefined {
    const [left, right] = this.levels as [number, number]
    if (left < right * dead * dead) return 1
    return right < left * dead * dead ? 0 : undefined
  }
}

function power(samples: Float32Array) {
  let sum = 0
  for (const s of samples) sum += s * s
  return sum / samples.length
}
