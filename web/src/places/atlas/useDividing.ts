/* Which regions an atlas has: the five positions, those of another way to divide the neck, on some strings alone, or the
   region of the player's own that the Bench was left in. It lives in the address. */
import { computed, ref, type Ref } from 'vue'
import { everyString, stringSets, useDivision } from '../../api/division'
import { told } from '../../neck/region'
import type { useAddress } from '../../shell/useAddress'
import { useRegion } from '../../neck/useRegion'

/* The lists have a name for what the address leaves out. */
export const every = 'every'

export function useDividing(address: ReturnType<typeof useAddress>, key: Ref<string | undefined>) {
  const { own, asked } = useRegion(address)
  const way = address.text('way')
  const on = address.text('on')
  const onStrings = computed({
    get: () => on.value || everyString,
    set: (s) => (on.value = s === everyString ? '' : s),
  })
  const regions = computed(() =>
    own.value ? asked.value : { way: way.value || undefined, strings: on.value || undefined },
  )
  const division = useDivision(key, ref(true))
  const ways = computed(() => [
    ...(division.data.value?.ways ?? []).map((w) => ({
      id: w.id,
      name: w.name,
      says: w.says,
    })),
    ...(own.value ? [{ id: 'own', name: told(own.value), says: 'the region that the Bench was left in' }] : []),
  ])
  const chosen = computed({
    get: () => (own.value ? 'own' : way.value || 'positions'),
    set: (id) =>
      void address.write({
        way: id === 'positions' ? undefined : id,
        own: undefined,
        ...(own.value ? { on: undefined } : {}),
      }),
  })
  const says = computed(() => ways.value.find((w) => w.id === chosen.value)?.says)
  const strings = computed(() => stringSets(division.data.value?.strings, on.value))
  return { own, way, on, regions, onStrings, chosen, ways, says, strings }
}
