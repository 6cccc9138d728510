/* Whether the machine slept: time went by in which nothing of the page ran. */

/** Seconds without a sign of life that are a sleep; a busy page is silent for less. */
export const sleeps = 10

export class Awake {
  private last: number | undefined
  /** now is the time of day in milliseconds; true once where it slept since it was asked before. */
  slept(now: number): boolean {
    const gap = this.last === undefined ? 0 : now - this.last
    this.last = now
    return gap > sleeps * 1000
  }
  /** From now on. */
  begin(now: number) {
    this.last = now
  }
}
