/* What strains a hand has a natural end: after so many choruses the band plays its ending. */
import { watch } from 'vue'
import { useBand } from './useBand'

export function useEnough(most: () => number | undefined, playing: () => boolean) {
  const band = useBand()
  watch(
    () => band.chorus,
    (chorus) => {
      const n = most()
      if (n && playing() && chorus === n - 1) void band.end()
    },
  )
}
