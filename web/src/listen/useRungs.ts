/* Which rung each thing that is practised stands on, remembered from day to day. */
import { computed, type Ref } from 'vue'
import { useLog } from '../api/log'
import { useBand } from '../band/useBand'
import { useSetting } from '../memory/settings'
import { ceiling, climbed, type Rung } from './rungs'

/** of names what is practised for the ladder, title and place for the log. */
export function useRungs(
  of: Ref<string>,
  title: () => string,
  place: () => { chart?: number; line?: number },
  /** the tempo that it is written at: the ladder ends half as quick again */
  tempo: () => number | undefined,
) {
  const log = useLog()
  const kept = useSetting<Record<string, Rung>>('rungs', {})
  const band = useBand()
  const rung = computed(() => kept.value[of.value])
  return {
    rung,
    /** Begins to climb from the tempo of now, or where it was left; or no longer climbs. */
    turn() {
      if (rung.value) {
        const { [of.value]: gone, ...rest } = kept.value
        void gone
        kept.value = rest
      } else kept.value = { ...kept.value, [of.value]: { tempo: band.tempo, row: 0 } }
    },
    /** A pass is over. */
    passed(clean: boolean) {
      if (!rung.value) return
      const before = rung.value.tempo
      const own = tempo()
      const next = climbed(rung.value, clean, own && ceiling(own))
      kept.value = { ...kept.value, [of.value]: next }
      if (next.tempo !== before) void log.rung({ title: title(), tempo: next.tempo, ...place() })
      if (next.tempo !== band.tempo) band.setTempo(next.tempo)
    },
    /** Stands on another tempo from now on. */
    stand(tempo: number) {
      kept.value = { ...kept.value, [of.value]: { tempo, row: 0 } }
      band.setTempo(tempo)
    },
    /** Takes up the tempo that was reached. */
    resume() {
      if (rung.value && rung.value.tempo !== band.tempo) band.setTempo(rung.value.tempo)
    },
  }
}
