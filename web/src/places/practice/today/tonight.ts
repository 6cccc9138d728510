/* What came of an evening, counted from the lines of the log. */
import type { LogRow } from '../../../api/client'

const counted = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`

/** In sentences; nothing where nothing was played. */
export function tonight(
  rows: Pick<LogRow, 'at' | 'kind' | 'asked' | 'right' | 'seconds' | 'title' | 'tempo'>[],
  begun: string,
  /** minutes, without the rests */
  planned: number,
): string[] {
  const since = new Date(begun).getTime()
  const mine = rows.filter((r) => new Date(r.at).getTime() >= since)
  const calls = mine.filter((r) => r.kind === 'call')
  const takes = mine.filter((r) => r.kind === 'take' && r.asked)
  const rungs = mine.filter((r) => r.kind === 'rung')
  const sum = (list: typeof mine, of: 'asked' | 'right') => list.reduce((n, r) => n + r[of], 0)
  const out: string[] = []
  if (calls.length) out.push(`${sum(calls, 'right')} of ${counted(sum(calls, 'asked'), 'call', 'calls')} right at once`)
  if (takes.length)
    out.push(
      `${sum(takes, 'right')} of ${counted(sum(takes, 'asked'), 'change', 'changes')} met on time in ${counted(takes.length, 'chorus or line', 'choruses and lines')}`,
    )
  const played = Math.round(mine.reduce((n, r) => n + r.seconds, 0) / 60)
  if (out.length) out.push(`${played} of ${counted(planned, 'planned minute', 'planned minutes')} sounded`)
  for (const r of rungs.slice(0, 3)) out.push(`${r.title} went up to ${r.tempo}`)
  return out
}
