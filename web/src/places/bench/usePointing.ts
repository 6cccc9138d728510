import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { answer, api, type Blend, type Place, type PlaceAbout, type PlaceReading } from '../../api/client'
import { readPlace } from '../../api/queries'
import type { Bench } from './useBench'

/** A place that was asked about: what it is, and what it is over every chord. */
export type Asked = Place & PlaceAbout & { readings: PlaceReading[] }

/** What is pointed at: places that a card lights, bends, and one place read over every chord. */
export function usePointing(bench: Bench, blend: Ref<Blend | undefined>) {
  const { data, at } = bench
  const queries = useQueryClient()
  const lit = ref<{ from: Place; to: Place }[]>([])
  const litPlaces = (places: Place[]) => (lit.value = places.map((p) => ({ from: p, to: p })))
  const bendTo = ref<string>()
  /** The bends drawn: to the third or whatever the palette lacks most, or to the tone that is pointed at. */
  const bent = computed(() => {
    const b = blend.value
    const lacking = b?.added.map((a) => a.degree) ?? []
    const wanted = bendTo.value ?? lacking.find((d) => d === '3' || d === 'b3') ?? lacking.at(-1)
    return b?.bends.filter((x) => x.degree && x.degree === wanted) ?? []
  })
  const reading = shallowRef<Asked>()
  watch([bench.id, bench.position], () => (reading.value = undefined))
  watch(at, () => (lit.value = []))
  async function readOne(p: Place) {
    const symbols = data.value!.chords.filter((c) => !c.none).map((c) => c.symbol)
    const player = await queries.ensureQueryData({
      queryKey: ['player'],
      queryFn: () => answer(api.GET('/api/player')),
    })
    const at = { string: p.string, fret: p.fret }
    const [readings, about] = await readPlace(at, symbols, data.value!.chart.key, player)
    reading.value = { ...at, ...about, readings }
  }

  return { lit, litPlaces, bendTo, bent, reading, readOne }
}
