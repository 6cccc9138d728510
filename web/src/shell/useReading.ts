import { computed } from 'vue'
import { useCatalogue } from '../api/queries'
import { useAddress } from './useAddress'

/** In which pitch a leaf is read: as the chart has it, or as the address says. */
export function useReading(own: () => string | undefined = () => undefined) {
  const address = useAddress()
  const catalogue = useCatalogue()
  const readings = computed(() => catalogue.data.value?.readings ?? [])
  const reading = computed({
    get: () => address.read('reading') || own() || 'concert',
    set: (r) => void address.write({ reading: r === (own() || 'concert') ? undefined : r }),
  })
  const about = computed(() => readings.value.find((r) => r.id === reading.value)?.about)
  return { readings, reading, about }
}
