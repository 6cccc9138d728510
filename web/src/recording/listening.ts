/* The ear of Practice over a stretch of a recording, as quickly as it can. */
import { Ear, hop, type Observation } from '../listen/ear/ear'
import type { Source } from './measure'

/** What it noticed; seconds are those of the recording. */
export type Noticed = Observation & { at: number }

/** Silence that is heard before the stretch and after it, so that what begins or ends there is noticed. */
const margin = 0.4

export function listen(source: Source, from: number, to: number, compass: [number, number]): Noticed[] {
  const rate = source.rate
  const first = Math.round((from - margin) * rate)
  const last = Math.min(source.length, Math.round((to + margin) * rate))
  // An ear is used to rates at which a window is long enough for the lowest string.
  const ear = new Ear(rate, -62, ...compass)
  const samples = new Float32Array(hop)
  const out: Noticed[] = []
  for (let at = first; at < last; at += hop) {
    source.mono(at, samples)
    for (const o of ear.hear(samples)) out.push({ ...o, at: (first + o.frame) / rate })
  }
  const begun = new Set(out.filter((o) => o.kind === 'attack' && o.at >= from - 0.06 && o.at < to).map((o) => o.seq))
  return out.filter((o) => begun.has('of' in o ? o.of : o.seq))
}
