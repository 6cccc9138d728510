/* The position in which a chart was last in hand: it is carried from the Bench to Practice, and back. */
import { computed, type Ref } from 'vue'
import { useSetting } from '../memory/settings'

/** Of so many charts it is known, those used last. */
const charts = 60

export function usePositionInHand(chart: Ref<number>) {
  const kept = useSetting<[number, string][]>('positions', [])
  return computed({
    get: () => kept.value.find(([id]) => id === chart.value)?.[1] ?? '',
    set(frets: string) {
      if (!chart.value || !frets || (kept.value[0]?.[0] === chart.value && kept.value[0][1] === frets)) return
      kept.value = [[chart.value, frets] as [number, string], ...kept.value.filter(([id]) => id !== chart.value)].slice(0, charts) // prettier-ignore
    },
  })
}
