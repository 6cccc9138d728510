/* What sounds in the place of the band's players, in time with the band's clock: a recording of the same chart. */
import type { Anchor } from './transport'

export interface Companion {
  /** its number among the recordings */
  id: number
  /** of the chart that it plays */
  chart: number
  title: string
  /** how much of the form it has, in words */
  much: string
  /** how often the form comes round in it */
  choruses: number
  /** its own, quarter notes a minute */
  tempo: number
  /** Is ready to sound in a context; where it is already, at once. */
  open: (context: AudioContext, to: AudioNode, progress: (part: number) => void) => Promise<void>
  /** From now on the band's clock goes so, and turns there. */
  follow: (anchor: Anchor, turn: Turn) => void
  rest: () => void
  /** What a microphone hears of it between two ticks: ticks and MIDI numbers. */
  notes: (from: number, to: number) => [number, number][]
  close: () => void
}

/** At a tick the clock goes on from another. */
export interface Turn {
  at: number
  to: number
}

/** Where the clock turns next: from the count-in to where it begins, at the end of a loop, at the end of all choruses. */
export function turnOf(a: Anchor, begin: number, end: number): Turn {
  if (a.tick < 0) return { at: 0, to: a.loop?.from ?? begin }
  if (a.loop && a.tick < a.loop.to) return { at: a.loop.to, to: a.loop.from }
  return { at: end, to: a.loop?.from ?? 0 }
}
