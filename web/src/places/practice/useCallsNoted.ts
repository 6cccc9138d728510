/* Every call is noted in the log. */
import { watch, type Ref } from 'vue'
import { useLog } from '../../api/log'
import { useRest } from '../../shell/useRest'
import type { useCalls } from './useCalls'

export function useCallsNoted(chart: Ref<number>, calls: ReturnType<typeof useCalls>) {
  const log = useLog()
  const rest = useRest()
  watch(calls.outcomes, (all) => {
    rest.did()
    const c = calls.call.value
    const o = all.at(-1)
    if (!c || !o || !chart.value) return
    const { kind, key, chord, degree, down, device, window, given, says } = c
    const { how, took } = o
    void log.call({ chart: chart.value, kind, key, chord, degree, down, device, window, given, says, how, took })
  })
}
