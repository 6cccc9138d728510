/* The strings that a line is written on: part of its region, for writing and for exercises. */
import { computed } from 'vue'
import { everyString, stringSets, useDivision } from '../../api/division'
import type { LineState } from './useLine'

export function useLineStrings(state: LineState) {
  const division = useDivision(
    computed(() => state.line.value?.key),
    computed(() => true),
    computed(() => {
      const { tuning, frets, capo } = state.line.value ?? {}
      return { tuning, frets, capo }
    }),
  )
  const sets = computed(() => stringSets(division.data.value?.strings, state.line.value?.strings))
  const on = computed({
    get: () => state.line.value?.strings || everyString,
    set: (strings) => void state.change({ strings: strings === everyString ? undefined : strings }),
  })
  return { sets, on }
}
