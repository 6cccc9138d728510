/*
 * How long before a beat a place that has much to draw is told of it, so that it is drawn when the beat is heard:
 * learned from how long it took until frames were quick again, the last times it was told.
 */

/** Seconds: what is allowed at least and at most, what is added, and how fast it is unlearned. */
export const limits = { least: 0.055, most: 0.2, margin: 0.02, less: 0.001 }
/** So many frames after the telling belong to it; one longer than this is at work on it. */
const watched = 4
const slow = 0.024

export class Ahead {
  private before?: number
  private left = 0
  private since = 0
  private took = 0
  private learned = limits.least

  /** At the start of each frame, in seconds. */
  frame(now: number) {
    if (this.left > 0 && this.before !== undefined) {
      if (now - this.before > slow) this.took = now - this.since
      if (--this.left === 0)
        this.learned = Math.min(
          limits.most,
          Math.max(limits.least, this.took + limits.margin, this.learned - limits.less),
        )
    }
    this.before = now
  }

  /** The place has just been told. */
  told() {
    this.left = watched
    this.since = this.before ?? 0
    this.took = 0
  }

  /** The band stands still: the time to the next frame means nothing. */
  rest() {
    this.before = undefined
    this.left = 0
  }

  /** Seconds ahead, never more than half a beat of this length. */
  seconds(beat: number) {
    return Math.min(this.learned, Math.max(limits.least, beat / 2))
  }
}
