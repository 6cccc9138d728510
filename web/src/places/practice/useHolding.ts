/* Limits while playing: what is held to now, and what comes next, said a bar ahead. */
import { computed, watch, type Ref } from 'vue'
import { quarter } from '../../api/facts'
import { useHolds } from '../../api/takes'
import { useBand } from '../../band/useBand'
import { metreOf } from '../../music/metre'
import { aloud } from '../../music/text'
import { holdsAt } from './holding'
import type { Chosen } from './useChosen'
import type { Limits } from './useLimits'
import { useVoice } from './useVoice'

export function useHolding(
  { can, hold }: Limits,
  { mode, over, chart, ground }: Chosen,
  pass: Ref<number>,
  playing: () => boolean,
) {
  const band = useBand()
  const known = useHolds(
    computed(() => {
      const o = over.value
      if (!o || !can.value) return undefined
      return { over: { ...o, notes: [] }, mode: mode.value!.id, pass: pass.value, hold: hold.value ?? { kinds: [] } }
    }),
  )
  const holds = computed(() => (hold.value ? (known.data.value?.holds ?? []) : []))
  const length = computed(() => {
    const bars = ground.data.value?.bars.length ?? 0
    return metreOf({ beats: chart.value?.beats ?? 4, bars, lengths: ground.data.value?.lengths }).length || 1
  })
  const tick = computed(() => (playing() && band.beat !== undefined && band.beat >= 0 ? (band.beat % length.value) * quarter : 0)) // prettier-ignore
  const here = computed(() => holdsAt(holds.value, tick.value))
  const voice = useVoice('prompts', true)
  const say = (list: { says: string }[]) => list.length && voice.say(aloud(list.map((h) => h.says).join(', and ')))
  /* A bar ahead of the next, and as it begins. */
  const ahead = computed(() => Number.isFinite(here.value.at) && tick.value >= here.value.at - 4 * quarter && here.value.at) // prettier-ignore
  watch(ahead, (at) => playing() && at && say(here.value.next))
  watch(() => playing() && holds.value.length > 0, (now) => now && say(here.value.now)) // prettier-ignore
  return {
    kinds: computed(() => known.data.value?.kinds ?? []),
    holds,
    here,
    trouble: computed(() => known.error.value?.message),
    voice,
    bars: (at: number) => Math.max(1, Math.round((at - tick.value) / quarter / (chart.value?.beats ?? 4))),
  }
}
export type HoldingNow = ReturnType<typeof useHolding>
