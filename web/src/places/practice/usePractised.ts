/* The chart that is practised: the one of the address, else the one opened last. */
import { computed, ref } from 'vue'
import { useChartMap, useCharts } from '../../api/queries'
import { useAddress } from '../../shell/useAddress'

export function usePractised() {
  const address = useAddress()
  const charts = useCharts()
  const id = computed(() => address.id.value || charts.data.value?.[0]?.id || 0)
  const map = useChartMap(
    id,
    ref(undefined),
    computed(() => id.value > 0),
  )
  return { address, charts, id, map, chart: computed(() => map.data.value?.chart) }
}
