/* Where a tick lies in what is drawn, and which tick lies at a place. */
import { quarter } from '../api/facts'
import type { Box } from './engrave'

/** What is pressed is the nearest quarter of a beat, in ticks. */
const quarterOfABeat = quarter / 4

type Spots = { spots: { x: number; note: { start: number } }[] }
type Bar = Pick<Box, 'x' | 'width' | 'from' | 'to' | 'start' | 'stop'>
interface Point {
  tick: number
  x: number
}

/** Ticks and the x of what begins there, through a bar; a bar that did not change keeps them. */
const known = new WeakMap<object, Point[]>()
function points(bar: Bar, row: Spots): Point[] {
  const before = known.get(bar)
  if (before) return before
  const inside = row.spots.filter((s) => s.x >= bar.x && s.x <= bar.x + bar.width)
  const list = [
    { tick: bar.start, x: bar.from },
    ...inside.map((s) => ({ tick: s.note.start, x: s.x })),
    { tick: bar.stop, x: bar.to },
  ].sort((a, b) => a.tick - b.tick)
  known.set(bar, list)
  return list
}

/** The points before and behind. */
function around(all: Point[], lies: (p: Point) => boolean): [Point, Point] {
  const k = Math.max(0, all.findLastIndex(lies))
  return [all[k]!, all[k + 1] ?? all[k]!]
}

/** The line of music and the x where a tick lies: between the notes around it. */
export function placeOf<R extends Spots & { boxes: Bar[] }>(
  rows: readonly R[],
  tick: number,
): { x: number; row: R } | undefined {
  const row = rows.findLast((r) => r.boxes[0]!.start <= tick)
  const bar = row?.boxes.findLast((b) => b.start <= tick)
  if (!row || !bar) return undefined
  const [a, b] = around(points(bar, row), (p) => p.tick <= tick)
  const part = b.tick > a.tick ? (tick - a.tick) / (b.tick - a.tick) : 0
  return { x: a.x + (b.x - a.x) * Math.min(1, part), row }
}

/** The tick at an x of a bar, in ticks: the nearest quarter of a beat. */
export function tickAt(row: Spots, bar: Bar, x: number): number {
  const [a, b] = around(points(bar, row), (p) => p.x <= x)
  const tick = a.tick + (b.x > a.x ? ((x - a.x) / (b.x - a.x)) * (b.tick - a.tick) : 0)
  return Math.round(tick / quarterOfABeat) * quarterOfABeat
}
