/* What the Atlas maps over each chord: its tones, a scale, or every note by its name. */
import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api } from '../../api/client'
import { useCatalogue } from '../../api/queries'
import type { useAddress } from '../../shell/useAddress'

type Layer = 'tones' | 'scale' | 'key' | 'names'

export function useLayer(address: ReturnType<typeof useAddress>, id: Ref<number>) {
  const catalogue = useCatalogue()
  const of = address.oneOf<Layer>('of', ['tones', 'scale', 'key', 'names'])
  const places = useQuery({
    queryKey: ['map', id, 'layer', of],
    queryFn: () =>
      answer(api.GET('/api/charts/{id}/layers/{layer}', { params: { path: { id: id.value, layer: of.value } } })),
    enabled: computed(() => of.value !== 'tones'),
  })
  const layers = computed(() => catalogue.data.value?.layers ?? [])
  return {
    of,
    layers,
    /** what is mapped, in words */
    name: computed(() => layers.value.find((l) => l.id === of.value)?.name ?? 'chord tones'),
    /** its places over each chord; none where it is the chord's own tones, which the map has */
    marked: computed(() => (of.value === 'tones' ? undefined : (places.data.value ?? []))),
  }
}
