/* Choruses that were played are kept, each as a take, beside its line in the log; or the last becomes a line. */
import { ref, watch, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { useLog } from '../../api/log'
import { keepSound, useTakeChanges } from '../../api/takes'
import { useBand } from '../../band/useBand'
import type { Chorus } from './useFree'

export function useKeptChoruses(
  choruses: Ref<Chorus[]>,
  held: Ref<Chorus[]>,
  of: () => { title: string; mode: string; chart: string },
) {
  const changes = useTakeChanges()
  const log = useLog()
  const band = useBand()
  const router = useRouter()
  /** How many are kept by now. */
  const kept = ref(0)
  watch(choruses, () => (kept.value = 0))
  return {
    kept,
    /** Those that are held are kept. */
    async keep() {
      const { title, mode } = of()
      for (const { free, heard, pass, sound, logged } of held.value.toReversed()) {
        const take = await changes.create.mutateAsync({
          title,
          mode,
          stage: pass,
          tempo: band.tempo,
          changes: free.landings.length,
          landed: free.landed,
          good: free.good,
          try: free.try,
          line: { ...free.line, title },
          heard,
        })
        await keepSound(take.id, await sound)
        void logged?.then((line) => (line ? log.kept(line, take.id) : undefined))
        kept.value++
      }
    },
    async asLine() {
      const last = choruses.value.at(-1)!
      const line = await changes.asLine({ ...last.free.line, title: `Played over ${of().chart}` })
      await router.push({ name: 'line', params: { id: line.id } })
    },
  }
}
