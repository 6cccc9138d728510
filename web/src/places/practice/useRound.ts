/* How calls follow each other: a moment after they are answered, or hands-free on the beat over the band. */
import { computed, onScopeDispose, watch } from 'vue'
import { useBand } from '../../band/useBand'
import type { useAddress } from '../../shell/useAddress'
import type { useCalls } from './useCalls'

/** How long an answer stands, in milliseconds. */
const stands = 1600

export function useRound(
  address: ReturnType<typeof useAddress>,
  { call, over, bars, next }: ReturnType<typeof useCalls>,
) {
  const band = useBand()
  const onBeat = address.yes('band')
  const free = computed(() => onBeat.value && band.playing)
  let after: ReturnType<typeof setTimeout> | undefined
  watch(over, (o) => {
    clearTimeout(after)
    if (o && !free.value) after = setTimeout(() => over.value && void next(), stands)
  })
  onScopeDispose(() => clearTimeout(after))
  const bar = computed(() =>
    band.beat !== undefined && band.beat >= 0
      ? band.chorus * (band.metre?.bars ?? 0) + (band.metre?.at(band.beat).bar ?? 0)
      : 0,
  )
  let asked = 0
  watch(call, () => (asked = bar.value))
  watch(bar, (b) => {
    if (free.value && b - asked >= bars.value) void next()
  })
  return { onBeat }
}
