/* Every way to divide a neck in a key, and sets of strings: of the player's instrument, or of one that is named. */
import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api } from './client'
import { usePlayer } from './queries'

export function useDivision(
  key: Ref<string | undefined>,
  wanted: Ref<boolean>,
  neck: Ref<{ tuning?: string; frets?: number; capo?: number } | undefined> = computed(() => undefined),
) {
  const player = usePlayer()
  const asked = computed(() => {
    if (!player.data.value || !key.value) return undefined
    const { tuning, frets, scale, capo } = player.data.value
    return { key: key.value, scale, ...(neck.value?.tuning ? neck.value : { tuning, frets, capo }) }
  })
  return useQuery({
    queryKey: ['division', asked],
    queryFn: () => answer(api.GET('/api/regions', { params: { query: asked.value! } })),
    enabled: computed(() => wanted.value && !!asked.value),
    staleTime: Infinity,
  })
}
