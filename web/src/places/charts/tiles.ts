/* What is done to the written bars of a chart, each of which says all there is to say of itself. */

export interface Tile {
  text: string
  row?: boolean
  /** It leads to the first bar and is none: where it stands, it stands first. */
  pickup?: boolean
}

/** Bars from one to another, both included, from 0. */
export interface Span {
  from: number
  to: number
}

export const span = (a: number, b: number): Span => ({ from: Math.min(a, b), to: Math.max(a, b) })

/** Bars as the text of a chart. */
export const written = (bars: readonly Tile[]): string =>
  bars.map((b, i) => `${i && b.row ? '|\n' : ''}| ${b.text} `).join('') + (bars.length ? '|' : '')

/** Rows begin where they began, whatever stands there now. */
const inRows = (before: readonly Tile[], after: readonly Tile[]): Tile[] =>
  after.map((b, i) => ({ text: b.text, row: before[i]?.row ?? false, ...(b.pickup && { pickup: true }) }))

/** Bars moved to stand before another, and where they are then. */
export function move(bars: readonly Tile[], { from, to }: Span, before: number) {
  const n = to - from + 1
  const at = Math.max(0, Math.min(before > to ? before - n : Math.min(before, from), bars.length - n))
  const rest = [...bars.slice(0, from), ...bars.slice(to + 1)]
  return { bars: inRows(bars, [...rest.slice(0, at), ...bars.slice(from, to + 1), ...rest.slice(at)]), now: span(at, at + n - 1) } // prettier-ignore
}

export const remove = (bars: readonly Tile[], { from, to }: Span): Tile[] => bars.filter((_, i) => i < from || i > to)

/** Bars put before another. */
export const put = (bars: readonly Tile[], before: number, more: readonly Tile[]): Tile[] => [
  ...bars.slice(0, before),
  ...more.map((m) => ({ text: m.text })),
  ...bars.slice(before),
]

/** Another text in the place of a bar. */
export const retype = (bars: readonly Tile[], at: number, text: string): Tile[] =>
  bars.map((b, i) => (i === at ? { ...b, text } : b))

/** A bar of which something else is said than before; undefined where there is none. */
export interface Difference {
  bar: number
  was?: string
  now?: string
}

/** The number of a bar, from 1; of a pickup 0. */
export const numberOf = (bars: readonly { pickup?: boolean }[], i: number) => (bars[0]?.pickup ? i : i + 1)

/** That a short bar is no pickup goes without saying but at the top. */
const bare = (text: string) => text.replace(/^no pickup /, '')

/** What a bar says when it is typed over. */
export const typed = (bars: readonly Tile[], i: number) => (i ? bare(bars[i]!.text) : bars[i]!.text)

/** Bars as they are carried elsewhere. */
export const carried = (bars: readonly Tile[]): string => written(bars.map((b) => ({ ...b, text: bare(b.text) })))

/** Bar by bar, what would be otherwise. */
export function differences<B extends { chords: string; beats: number; pickup?: boolean }>(
  was: readonly B[],
  now: readonly B[],
) {
  const said = (b: B | undefined, other: B | undefined) =>
    b && (other && other.beats !== b.beats ? `${b.beats}/4 ${b.chords}` : b.chords)
  const out: Difference[] = []
  const [leads, led] = [was[0]?.pickup ? 1 : 0, now[0]?.pickup ? 1 : 0]
  for (let i = leads || led ? -1 : 0; i < Math.max(was.length - leads, now.length - led); i++) {
    const [before, after] = [was[i + leads], now[i + led]]
    const [a, b] = [said(before, after), said(after, before)]
    if (a !== b) out.push({ bar: i + 1, was: a, now: b })
  }
  return out
}

/** What is told of a written bar. */
interface Told {
  text: string
  beats: number
  section?: string
  before?: string
  after?: string
  chords: string
  pickup?: boolean
}

/** The time of a bar where it is another than before; the first says it where it is written. */
export function metreOf(bars: readonly Pick<Told, 'text' | 'beats' | 'pickup'>[], i: number): string {
  const b = bars[i]!
  if (b.pickup) return ''
  const before = (bars[i - 1]?.pickup ? undefined : bars[i - 1]?.beats) ?? (b.text.includes('/4') ? 0 : b.beats)
  return b.beats !== before ? `${b.beats}/4` : ''
}
