/* Every way to divide a neck in a key, and sets of strings: of the player's instrument, or of one that is named. */
import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { onStrings, stringsOf } from '../neck/region'
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

/** Of every string a list has a name too. */
export const everyString = 'all'

/** The sets of strings to choose from, and the one that was chosen otherwise. */
export function stringSets(sets: readonly { strings: string; name: string }[] | undefined, chosen: string | undefined) {
  const list = (sets ?? []).map((s) => ({ id: s.strings || everyString, name: s.name }))
  if (!chosen || list.some((s) => s.id === chosen)) return list
  return [...list, { id: chosen, name: onStrings(stringsOf(chosen)) || `strings ${chosen}` }]
}
