/* Where on the neck the Bench is: one of the key's positions, or a region of the player's own, by whichever way the neck is
   divided. It lives in the address: own=5-12, on=5,2, way=three. */
import { computed, type Ref } from 'vue'
import type { ChartMap } from '../api/client'
import { useDivision } from '../api/division'
import { stringsOf, written, type Region, spanOf } from './region'

type Address = { read: (name: string) => string; write: (fields: Record<string, string | undefined>) => unknown }

/** What the address says of it. */
export function useRegion({ read }: Pick<Address, 'read'>) {
  const range = (name: string) => {
    const m = /^(\d+)-(\d+)$/.exec(read(name))
    return m ? { low: Number(m[1]), high: Number(m[2]) } : undefined
  }
  const own = computed<Region | undefined>(() => {
    const frets = range('own')
    const strings = stringsOf(read('on'))
    return frets && { ...frets, ...(strings.length ? { strings } : {}) }
  })
  /** As the server is asked for it. */
  const asked = computed(
    () => own.value && { low: own.value.low, high: own.value.high, strings: written(own.value.strings) },
  )
  return { range, own, asked, way: computed(() => read('way')) }
}

/** How it is changed, for the chart and the neck in hand. */
export function useRegions(
  { own, way }: ReturnType<typeof useRegion>,
  turn: Address['write'],
  map: Ref<ChartMap | undefined>,
) {
  const division = useDivision(
    computed(() => map.value?.chart.key),
    computed(() => way.value !== ''),
  )
  const regions = computed(() => division.data.value?.ways.find((w) => w.id === way.value)?.regions ?? [])
  /** The shape that the region is, where its way has so many notes on a string. */
  const shape = computed(() =>
    regions.value.find((r) => r.places?.length && r.low === own.value?.low && r.high === own.value.high),
  )
  const setOwn = (low: number, high: number, strings = own.value?.strings, by?: string) => {
    const last = map.value?.instrument.last ?? 22
    if (low >= 0 && high <= last) turn({ own: spanOf({ low, high }), on: written(strings), way: by })
  }
  /** To the next region of the way, or by a fret where it is the player's own. */
  const shift = (by: number) => {
    const o = own.value
    if (!o) return
    const i = regions.value.findIndex((r) => r.low === o.low && r.high === o.high)
    const next = regions.value[i + by]
    if (i < 0) setOwn(o.low + by, o.high + by)
    else if (next) setOwn(next.low, next.high, next.strings ? stringsOf(next.strings) : o.strings, way.value)
  }
  return {
    shape,
    setOwn,
    shift,
    leaveOwn: () => turn({ own: undefined, on: undefined, way: undefined }),
  }
}
