/* The chord that comes next is spoken a beat ahead, where the player wants it. */
import { quarter } from '../../api/facts'
import { watch } from 'vue'
import { useBand } from '../../band/useBand'
import { metreOf } from '../../music/metre'
import { spoken } from '../../music/text'
import type { Chosen } from './useChosen'
import { useVoice } from './useVoice'

export function useAhead({ chart, ground }: Chosen, playing: () => boolean) {
  const band = useBand()
  const voice = useVoice('ahead', false)
  watch(
    () => (voice.on.value && playing() && band.beat !== undefined ? band.beat + 1 : undefined),
    (beat) => {
      const c = chart.value
      if (beat === undefined || !c || beat < 0) return
      const bars = ground.data.value?.bars ?? []
      const whole = metreOf({ beats: c.beats, bars: bars.length, lengths: ground.data.value?.lengths }).length
      const change = bars.flat().find((x) => x.at === (beat % whole) * quarter)
      if (change) voice.say(spoken(change.chord))
    },
  )
  return voice
}
