/* One chord is looped by a press on it, or by the key for the one that sounds; and let go the same way. */
import type { Chosen } from './useChosen'

/** playing tells whether the band does; tick where it is. */
export function useChordLoop(
  { address, chord, chart, ground }: Chosen,
  playing: () => boolean,
  tick: () => number | undefined,
) {
  function of(symbol: string) {
    const one = symbol === chord.value ? undefined : symbol
    void address.write({ chord: one, play: one || playing() ? 'yes' : undefined })
  }
  const sounding = () => ground.data.value?.bars.flat().findLast((c) => c.at <= Math.max(0, tick() ?? 0))?.chord
  return { of, turn: () => of(chord.value || (sounding() ?? chart.value!.key)) }
}
