/* Time with a recording counts: noted in the log when the player leaves it, and rests are offered as elsewhere. */
import { useEventListener } from '@vueuse/core'
import { onScopeDispose } from 'vue'
import { useLog } from '../../api/log'
import { useRest } from '../../shell/useRest'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

/** Seconds that are worth a line of the log, and the most that is one line. */
const worth = 10
const most = 3600

export function useTimeSpent(work: RecordingWork, sound: RecordingSound) {
  const log = useLog()
  const rest = useRest()
  let seconds = 0
  function note() {
    const b = work.body.value
    if (!b || seconds < worth) return
    void log.byEar({ title: b.title, chart: b.chart, seconds })
    seconds = 0
  }
  const clock = setInterval(() => {
    if (!sound.playing.value) return
    seconds++
    rest.did()
    if (seconds >= most) note()
  }, 1000)
  useEventListener(window, 'pagehide', note)
  onScopeDispose(() => {
    clearInterval(clock)
    note()
  })
}
