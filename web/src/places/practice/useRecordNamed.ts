/* The recording that the address names plays the chart in the band's place; one that is chosen elsewhere is named there. */
import { computed, watch, type Ref } from 'vue'
import { useBand } from '../../band/useBand'
import { useInBand } from '../../recording/useInBand'
import type { Chosen } from './useChosen'

export function useRecordNamed(address: Chosen['address'], chart: Ref<{ id: number } | undefined>) {
  const band = useBand()
  const inBand = useInBand()
  const named = address.text('record', '')
  watch(
    () => [Number(named.value) || 0, chart.value?.id] as const,
    ([id, of], was) => {
      if (of && id !== (band.record?.id ?? 0) && (id || was?.[0])) void inBand.choose(id)
    },
    { immediate: true },
  )
  watch(
    () => band.record?.id,
    (id, was) => {
      if (id) named.value = `${id}`
      else if (named.value === `${was}`) named.value = ''
    },
    { immediate: true },
  )
  return {
    trouble: inBand.trouble,
    /** Whoever is to play can. */
    ready: computed(() => !named.value || band.record?.id === Number(named.value) || !!inBand.trouble.value),
  }
}
