/* A line that is a drill of bends or trills has a natural end, and two easier choices. */
import { computed, watch, type Ref } from 'vue'
import type { LineBody, Study } from '../../api/client'
import { useBand } from '../../band/useBand'
import type { Level } from '../../document/level'
import { enough } from './strain'

export function useStrain(
  study: Ref<Study | undefined>,
  practised: Ref<LineBody | undefined>,
  level: Ref<Level>,
  playing: Ref<boolean>,
  /** A part of it goes round. */
  part: Ref<boolean>,
) {
  const band = useBand()
  const most = computed(() => enough(study.value?.report.strain, practised.value?.notes ?? [], level.value))
  let first = 0
  const pass = () => band.where(performance.now())?.pass ?? 0
  watch(playing, (now) => now && (first = pass()))
  watch(
    () => band.beat,
    () => {
      if (!most.value || !playing.value) return
      const played = pass() - first
      if (part.value) {
        if (played >= most.value) band.stop()
      } else if (played >= most.value - 1 && !band.ending) void band.end()
    },
  )
  return { most }
}
