/* Voice leading further than the next change: through several chords at once, one or more tones at a time, from where the
   hand is. What is asked for lives in the address. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Place } from '../../api/client'
import type { useAddress } from '../../shell/useAddress'
import { phrase } from '../../band/audition'
import { useBand } from '../../band/useBand'
import { useAsked } from './useAsked'
import type { Bench } from './useBench'
import type { Chain } from './chains'

export function useLeading(bench: Bench, address: ReturnType<typeof useAddress>) {
  const { data, chord, coming } = bench
  const band = useBand()
  const neck = useAsked(bench)
  const voices = address.oneOf('voices', ['one', 'two', 'three'])
  const tones = address.oneOf('tones', ['any', 'guide'])
  const through = address.text('through')
  /** What can be led through: the change at hand, and the stretches that the form has. */
  const spans = computed(() => {
    const d = data.value
    const now = chord.value
    const next = d && coming.value[0] ? d.chords[coming.value[0].chord] : undefined
    const here = now && next ? [{ id: '', name: 'the next change', chords: [now.symbol, next.symbol] }] : []
    return [...here, ...(d?.spans ?? []).map((s) => ({ id: s.name, name: s.name, chords: s.chords }))]
  })
  const span = computed(() => spans.value.find((s) => s.id === through.value) ?? spans.value[0])
  const hand = computed<Place | undefined>(() => {
    const m = /^(\d+):(\d+)$/.exec(address.read('hand'))
    return m ? { string: Number(m[1]), fret: Number(m[2]) } : undefined
  })
  const stand = (at?: Place) => address.write({ hand: at && `${at.string}:${at.fret}` })
  const asked = computed(() => {
    if (!neck.value || !span.value) return undefined
    const from = hand.value
    return {
      ...neck.value,
      /* From a place the way goes to the chord that comes. */
      chords: from && span.value.id === '' ? span.value.chords.slice(1) : span.value.chords,
      voices: ['one', 'two', 'three'].indexOf(voices.value) + 1,
      roles: tones.value === 'guide' ? 'third,seventh' : undefined,
      from: from && `${from.string}:${from.fret}`,
    }
  })
  const open = computed(() => address.read('card') === 'leading')
  /** The place of the hand, to be lit. */
  const standing = computed(() => (open.value && hand.value ? [{ from: hand.value, to: hand.value }] : []))
  const found = useQuery({
    queryKey: ['chains', asked],
    queryFn: () => answer(api.GET('/api/chains', { params: { query: asked.value! } })),
    enabled: computed(() => open.value && !!asked.value),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  })
  const chains = computed(() => (found.error.value ? [] : (found.data.value ?? [])))
  const problem = computed(() => found.error.value?.message)

  /** A bar for each chord, the voices together. */
  function hear(c: Chain) {
    const { key, beats, feel } = data.value!.chart
    void band.hear({
      title: c.links.map((l) => l.chord).join(' '),
      ...phrase({
        ...{ key, beats, feel },
        text: `| ${c.links.map((l) => l.chord).join(' | ')} |`,
        lead: c.links.map((l) => ({ midi: l.tones[0]!.midi, with: l.tones.slice(1).map((t) => t.midi), beats })),
      }),
      cues: c.links.map((l, i) => ({ beat: i * beats, length: beats, place: l.tones[0]! })),
    })
  }
  return { voices, tones, through, spans, span, hand, stand, standing, chains, problem, hear, open }
}

export type Leading = ReturnType<typeof useLeading>
