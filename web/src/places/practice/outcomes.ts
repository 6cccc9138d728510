/* What became of the calls of one sitting. */

export interface Outcome {
  /** right at the first try · right, not in the rhythm asked for · right after a slip · asked to be shown · let go */
  how: 'right' | 'uneven' | 'late' | 'shown' | 'passed'
  /** milliseconds until the answer was complete; none where it was let go */
  took?: number
  chord: string
  says: string
}

/** Told after some calls: what was good first, and one thing to try. */
export interface Sum {
  asked: number
  right: number
  /** milliseconds, the middle one of the right answers */
  usual?: number
  /** what took longest or was missed most */
  weak?: string
}

const middle = (list: number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]

export function summed(outcomes: Outcome[]): Sum {
  const right = outcomes.filter((o) => o.how === 'right')
  const slips = new Map<string, number>()
  for (const o of outcomes) if (o.how !== 'right') slips.set(o.chord, (slips.get(o.chord) ?? 0) + 1)
  const weak = [...slips].toSorted((a, b) => b[1] - a[1])[0]
  return {
    asked: outcomes.length,
    right: right.length,
    usual: middle(right.map((o) => o.took!)),
    weak: weak && weak[1] > 1 ? weak[0] : undefined,
  }
}

/** Bars from call to call: fewer after three right ones in a row, more after two that were not. */
export function paced(bars: number, outcomes: Outcome[]): number {
  const last = (n: number, of: (o: Outcome) => boolean) => outcomes.length >= n && outcomes.slice(-n).every(of)
  if (last(3, (o) => o.how === 'right')) return Math.max(1, bars / 2)
  if (last(2, (o) => o.how !== 'right')) return Math.min(8, bars * 2)
  return bars
}
