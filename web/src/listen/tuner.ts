/* The open string that a pitch is meant for. */
import type { Instrument } from '../api/client'

export function nearest(midi: number, { midi: open, open: names }: Pick<Instrument, 'midi' | 'open'>) {
  const off = open.map((m) => Math.abs(m - midi))
  const k = off.indexOf(Math.min(...off))
  return { string: k + 1, name: names[k]!, cents: 100 * (midi - open[k]!) }
}
