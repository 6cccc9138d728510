/* Which limits were chosen: a field of the address. */
import { computed, ref } from 'vue'
import { readHolds, writeHolds } from './holding'
import type { Chosen } from './useChosen'

/** Bars after which others are drawn; 0 is never. */
const paces = ['4', '2', '8', '0'] as const

export function useLimits({ address, mode }: Chosen) {
  const text = address.text('hold')
  const every = address.oneOf('every', paces)
  const seed = ref(1)
  const chosen = computed(() => readHolds(text.value))
  /** Where a way to practise writes what is to be played, there is nothing else to hold to. */
  const can = computed(() => !!mode.value && !mode.value.writes)
  return {
    can,
    chosen,
    every,
    hold: computed(() =>
      can.value && chosen.value.size
        ? { kinds: writeHolds(chosen.value).split(';'), every: Number(every.value), seed: seed.value }
        : undefined,
    ),
    /** a kind is held to, as an option of it or as it is drawn; or no more */
    set(kind: string, of: string | undefined) {
      const next = new Map(chosen.value)
      if (of === undefined) next.delete(kind)
      else next.set(kind, of)
      text.value = writeHolds(next)
    },
    clear: () => (text.value = ''),
    another: () => seed.value++,
  }
}
export type Limits = ReturnType<typeof useLimits>
