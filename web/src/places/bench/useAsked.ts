/* The neck and the region in hand, as a question about them is asked. */
import { computed } from 'vue'
import { usePlayer } from '../../api/queries'
import { written } from '../../neck/region'
import type { Bench } from './useBench'

export function useAsked({ window }: Pick<Bench, 'window'>) {
  const player = usePlayer()
  return computed(() => {
    const w = window.value
    const p = player.data.value
    if (!w || !p) return undefined
    const { tuning, frets, scale, capo, comfort, habit } = p
    return {
      ...{ tuning, frets, scale, capo, comfort, habit: habit as 'stay' },
      ...{ low: w.low, high: w.high, strings: written(w.strings) },
    }
  })
}
