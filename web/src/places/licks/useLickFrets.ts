/* Where a lick is laid over another chord: where it is asked for, else where the hand was on the chart opened last. */
import { computed } from 'vue'
import { useCharts } from '../../api/queries'
import { usePositionInHand } from '../../neck/usePositionInHand'
import { useAddress } from '../../shell/useAddress'

const usual = ['0-4', '2-6', '4-8', '5-9', '7-11', '9-13', '12-16', '14-18']

export function useLickFrets() {
  const charts = useCharts()
  const inHand = usePositionInHand(computed(() => charts.data.value?.[0]?.id ?? 0))
  const asked = useAddress().text('frets', '')
  const frets = computed({
    get: () => asked.value || inHand.value || '7-11',
    set: (now) => (asked.value = now),
  })
  const windows = computed(() =>
    [...new Set([...usual, frets.value])].map((value) => ({ value, name: value.replace('-', ' to ') })),
  )
  return { frets, windows }
}
