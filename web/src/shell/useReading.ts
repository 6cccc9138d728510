import { computed } from 'vue'
import { useCatalogue } from '../api/queries'
import { useAddress } from './useAddress'

/** In which pitch a leaf is read; it stands in the address. */
export function useReading() {
  const address = useAddress()
  const catalogue = useCatalogue()
  const readings = computed(() => catalogue.data.value?.readings ?? [])
  const reading = computed({
    get: () => address.read('reading') || 'concert',
    set: (r) => void address.write({ reading: r === 'concert' ? undefined : r }),
  })
  const about = computed(() => readings.value.find((r) => r.id === reading.value)?.about)
  return { readings, reading, about }
}
