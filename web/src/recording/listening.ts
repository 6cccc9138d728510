/* The ear of Practice over a stretch of a recording, as quickly as it can. */
import { Ear, hop, type Observation } from '../listen/ear/ear'
import { done, type Source, type Work } from './measure'

/** What it noticed; seconds are those of the recording. */
export type Noticed = Observation & { at: number }

/** Silence that is heard before the stretch and after it, so that what begins or ends there is noticed. */
const margin = 0.4
/** Hops between two breaths. */
const some = 100

export const listen = (source: Source, from: number, to: number, compass: [number, number]): Noticed[] =>
  done(listening(source, from, to, compass))

/** The same, some at a time. */
export function* listening(source: Source, from: number, to: number, compass: [number, number]): Work<Noticed[]> {
  const rate = source.rate
  const first = Math.round((from - margin) * rate)
  const last = Math.min(source.length, Math.round((to + margin) * rate))
  // An ear is used to rates at which a window is long enough for the lowest string.
  const ear = new Ear(rate, -62, ...compass)
  const samples = new Float32Array(hop)
  const out: Noticed[] = []
  let n = 0
  for (let at = first; at < last; at += hop) {
    if (++n % some === 0) yield (at - first) / (last - first)
    source.mono(at, samples)
    for (const o of ear.hear(samples)) out.push({ ...o, at: (first + o.frame) / rate })
  }
  return begunIn(out, from - 0.06, to)
}

/** What belongs to strokes between two moments. */
export function begunIn(noticed: readonly Noticed[], from: number, to: number): Noticed[] {
  const begun = new Set(noticed.filter((o) => o.kind === 'attack' && o.at >= from && o.at < to).map((o) => o.seq))
  return noticed.filter((o) => begun.has('of' in o ? o.of : o.seq))
}
