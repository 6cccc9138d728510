/* Other arpeggios over the chord in hand: those of the key's steps and of the chord's scale; one of them can be put on the
   neck in the place of the chord's own. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api } from '../../api/client'
import type { components } from '../../api/schema'
import { phrase } from '../../band/audition'
import { useBand } from '../../band/useBand'
import type { useAddress } from '../../shell/useAddress'
import { useAsked } from './useAsked'
import type { Bench } from './useBench'

export type OtherArpeggio = components['schemas']['OtherArpeggio']
export const orders = ['suits', 'key', 'scale'] as const

export function useOther(bench: Bench, address: ReturnType<typeof useAddress>) {
  const { data, chord } = bench
  const band = useBand()
  const neck = useAsked(bench)
  const open = computed(() => address.read('card') === 'others')
  const order = address.oneOf('order', orders)
  const octave = address.yes('octave')
  const asked = computed(
    () =>
      neck.value &&
      chord.value &&
      !chord.value.none && { ...neck.value, key: data.value!.chart.key, chord: chord.value.symbol },
  )
  const found = useQuery({
    queryKey: ['arpeggios', asked],
    queryFn: () => answer(api.GET('/api/arpeggios', { params: { query: asked.value || undefined! } })),
    enabled: computed(() => open.value && !!asked.value),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  })
  const all = computed(() => (open.value ? (found.data.value?.arpeggios ?? []) : []))
  /** As they suit the chord, or step by step through the key or the scale. */
  const list = computed(() => {
    if (order.value === 'suits') return all.value
    const of = (o: OtherArpeggio) => (order.value === 'scale' ? o.scaleStep : o.keyStep) ?? 0
    return all.value.filter(of).toSorted((a, b) => of(a) - of(b))
  })
  const chosen = computed(() => all.value.find((o) => o.chord === address.read('over')))
  const choose = (o?: OtherArpeggio) =>
    void address.write({ over: o && o.chord !== address.read('over') ? o.chord : undefined })
  /** What the neck shows in the place of the chord's run. */
  const notes = computed(() => (chosen.value ? notesOf(chosen.value) : undefined))
  const notesOf = (o: OtherArpeggio) => (octave.value ? o.octave : o.run.notes)
  /** The chord's scale behind an octave of an arpeggio, for those who learn the scale first. */
  const scale = computed(() => (open.value && octave.value ? (found.data.value?.places ?? []) : undefined))

  /** Up the arpeggio, over the chord in hand. */
  function hear(o: OtherArpeggio) {
    const { key, beats, feel } = data.value!.chart
    const run = notesOf(o)
    if (!run.length || !chord.value) return
    const bars = Math.ceil(run.length / beats)
    void band.hear({
      title: `${o.chord} over ${chord.value.symbol}`,
      ...phrase({
        ...{ key, beats, feel },
        text: `| ${Array(bars).fill(chord.value.symbol).join(' | ')} |`,
        lead: run.map((n) => ({ midi: n.midi, beats: 1 })),
      }),
      cues: run.map((n, i) => ({ beat: i, length: 1, place: { string: n.string, fret: n.fret } })),
    })
  }
  return { open, order, octave, list, chosen, choose, notes, scale, hear }
}

export type Other = ReturnType<typeof useOther>
