/* Where the ear listens to a simulated player, one plays along: through the synthesiser, and heard like anybody else. */
import { quarter } from '../api/facts'
import { watch, type Ref } from 'vue'
import type { HeardNote } from '../api/client'
import { useBand } from '../band/useBand'
import { soundEvents } from './sounding'
import { useEar } from './useEar'

/** ask gives what it plays of one chorus; of tells how many choruses there are, and how many ticks each has. */
export function useSounding(
  playing: Ref<boolean>,
  ask: () => Promise<HeardNote[]>,
  of: () => { choruses: number; ticks: number },
) {
  const ear = useEar()
  const band = useBand()
  watch(
    () => playing.value && ear.on && ear.source === 'player',
    async (plays) => {
      if (!plays) return
      const { choruses, ticks } = of()
      for (let c = 0; c < choruses && playing.value; c++)
        band.join(soundEvents(await ask(), c ? c * ticks : 0).filter((e) => e.at > (c ? 0 : -quarter)))
    },
  )
}
