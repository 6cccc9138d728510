/* Every call is noted in the log. */
import { watch, type Ref } from 'vue'
import { useLog } from '../../api/log'
import { useRest } from '../../shell/useRest'
import { useWay } from '../../ways/useWay'
import type { Place } from './asked'
import type { useCalls } from './useCalls'

export function useCallsNoted(chart: Ref<number>, calls: ReturnType<typeof useCalls>) {
  const log = useLog()
  const rest = useRest()
  const way = useWay()
  watch(calls.outcomes, (all) => {
    rest.did()
    const c = calls.call.value
    const o = all.at(-1)
    if (!c || !o || !chart.value) return
    const { kind, key, chord, degree, down, device, window, given, says } = c
    const { how, took } = o
    if (how === 'right' || how === 'late') way.met('answered')
    const first = calls.first.value
    void log.call({ chart: chart.value, kind, key, chord, degree, down, device, window, given, says, how, took, by: c.notes.length ? calls.by.value : 'name', ...told(c.kind, first) }) // prettier-ignore
  })
}

/** What was taken for what: a degree that was named, a place that was pressed, a note that was played. How far to bend is none. */
function told(kind: string, first: { asked: string; took: Place | string | number } | undefined) {
  if (!first || kind === 'bend') return {}
  const { asked, took } = first
  if (typeof took === 'string') return { asked, said: took }
  return typeof took === 'number' ? { asked, played: took } : { asked, pressed: took }
}
