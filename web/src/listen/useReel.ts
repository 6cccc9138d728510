/* Between which frames each pass was heard, so that a take can be kept as it sounded. */
import { quarter } from '../api/facts'
import { useBand } from '../band/useBand'
import { useEar } from './useEar'

export function useReel() {
  const band = useBand()
  const ear = useEar()
  const passes = new Map<number, { from: number; to: number }>()
  return {
    /** A pass was at a tick when a frame was heard. */
    at(pass: number, tick: number, frame: number) {
      const from = passes.get(pass)?.from ?? frame - (tick * band.rate() * 60) / band.tempo / quarter
      passes.set(pass, { from, to: frame })
    },
    /** How a pass sounded, from its first beat on. */
    sound(pass: number) {
      const span = passes.get(pass)
      return span ? ear.cut(span.from, span.to) : Promise.resolve(undefined)
    },
    clear: () => passes.clear(),
  }
}
