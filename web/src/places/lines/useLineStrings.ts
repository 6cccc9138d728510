/* The strings that a line is written on: part of its region, for writing and for exercises. */
import { computed } from 'vue'
import { useDivision } from '../../api/division'
import type { LineState } from './useLine'

const all = 'all'

export function useLineStrings(state: LineState) {
  const division = useDivision(
    computed(() => state.line.value?.key),
    computed(() => true),
    computed(() => {
      const { tuning, frets, capo } = state.line.value ?? {}
      return { tuning, frets, capo }
    }),
  )
  const sets = computed(() => division.data.value?.strings.map((s) => ({ id: s.strings || all, name: s.name })) ?? [])
  const on = computed({
    get: () => state.line.value?.strings || all,
    set: (strings) => void state.change({ strings: strings === all ? undefined : strings }),
  })
  return { sets, on }
}
