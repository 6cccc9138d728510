/* What became of the calls of one sitting. */

export interface Outcome {
  /** right at the first try · right, not in the rhythm asked for · right after a slip · asked to be shown · not answered in
   * time · skipped, which tells nothing of how well it is known */
  how: 'right' | 'uneven' | 'late' | 'shown' | 'passed' | 'skipped'
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
  /** that were not wanted */
  skipped: number
  /** what took longest or was missed most */
  weak?: string
}

const middle = (list: number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]

const answered = (outcomes: Outcome[]) => outcomes.filter((o) => o.how !== 'skipped')

export function summed(all: Outcome[]): Sum {
  const outcomes = answered(all)
  const right = outcomes.filter((o) => o.how === 'right')
  const slips = new Map<string, number>()
  for (const o of outcomes) if (o.how !== 'right') slips.set(o.chord, (slips.get(o.chord) ?? 0) + 1)
  const weak = [...slips].toSorted((a, b) => b[1] - a[1])[0]
  return {
    asked: outcomes.length,
    right: right.length,
    skipped: all.length - outcomes.length,
    usual: middle(right.map((o) => o.took!)),
    weak: weak && weak[1] > 1 ? weak[0] : undefined,
  }
}

/** Bars from call to call: fewer after three right ones in a row, more after two that were not. */
export function paced(bars: number, all: Outcome[]): number {
  const outcomes = answered(all)
  if (all.at(-1)?.how === 'skipped') return bars
  const last = (n: number, of: (o: Outcome) => boolean) => outcomes.length >= n && outcomes.slice(-n).every(of)
  if (last(3, (o) => o.how === 'right')) return Math.max(1, bars / 2)
  if (last(2, (o) => o.how !== 'right')) return Math.min(8, bars * 2)
  return bars
}

/** Right answers in a row after which more is asked, and slips, within as many answers, after which less is. */
const [rises, falls, within] = [5, 2, 3]

/** One step up, down or none, by what was answered since the last. */
export function stepped(since: Outcome[]): -1 | 0 | 1 {
  const outcomes = answered(since)
  const last = outcomes.slice(-within)
  if (last.filter((o) => o.how !== 'right' && o.how !== 'uneven').length >= falls) return -1
  return outcomes.length >= rises && outcomes.slice(-rises).every((o) => o.how === 'right') ? 1 : 0
}
