import { computed, watch } from 'vue'
import { useToast } from 'primevue/usetoast'
import { readLoop, writeLoop } from '../../band/settings'
import { maxTempo, minTempo } from '../../api/facts'
import { useBand } from '../../band/useBand'
import type { Bench } from './useBench'
import { metreOfSheet } from '../../music/metre'
import { useAddress } from '../../shell/useAddress'

/** What is seen follows what is heard; loop and tempo stand in the address. */
export function useFollow(bench: Bench) {
  const band = useBand()
  const address = useAddress()
  const toast = useToast()
  const { data, steps, at, step, coming, chorus, choruses, beatOf, show, id } = bench

  /** The stretch of the chord in hand, over bars that repeat it. */
  const chord = computed(() => {
    const all = steps.value
    let [a, b] = [at.value, at.value]
    if (!all[a]) return
    while (a > 0 && all[a - 1]!.chord === all[a]!.chord) a--
    while (b + 1 < all.length && all[b + 1]!.chord === all[b]!.chord) b++
    return { from: beatOf(all[a]!), to: beatOf(all[b]!) + all[b]!.length, last: all[b]! }
  })
  watch(
    [chord, coming, data],
    () => {
      const c = chord.value
      const n = coming.value[0]
      if (!c || !data.value) return (band.here = undefined)
      const change = { from: beatOf(c.last), to: c.to }
      // The way into the next chord: the last of this one and the first of that; past the end, what there is of this.
      if (n && beatOf(n) === c.to) change.to = beatOf(n) + n.length
      band.here = { chord: { from: c.from, to: c.to }, change }
    },
    { immediate: true },
  )

  const starts = computed(() => steps.value.map(beatOf))
  watch(
    () => band.soon,
    (next) => {
      if (!next || next.beat < 0 || band.audition || band.chart?.id !== id.value) return
      const { beat, chorus: heard } = next
      let i = starts.value.findLastIndex((s) => s <= beat)
      if (i < 0) i = 0
      const c = heard % choruses.value
      if (i !== at.value || c !== chorus.value) show(i + (c - chorus.value) * steps.value.length)
    },
  )

  const said = (summary: string) => toast.add({ severity: 'secondary', summary, life: 7000 })
  let read = 0
  watch(
    data,
    (d) => {
      if (!d || read === d.chart.id) return
      read = d.chart.id
      const [loops, tempo] = [address.read('loop'), address.read('tempo')]
      if (loops && !band.playing) {
        const { loop, said: why } = readLoop(loops, metreOfSheet(d.bars))
        band.take(d.chart)
        band.setLoop(loop)
        if (why) said(why)
      }
      if (tempo && !band.playing) {
        const asked = Number(tempo)
        band.take(d.chart)
        band.setTempo(asked)
        if (band.tempo !== asked)
          said(
            `A tempo of ${tempo} cannot be played; between ${minTempo} and ${maxTempo} can. It is set to ${band.tempo}.`,
          )
      }
    },
    { immediate: true },
  )
  watch(
    () => [band.loop, band.tempo, band.chart?.id] as const,
    () => {
      const d = data.value
      if (!d || band.chart?.id !== d.chart.id || read !== d.chart.id) return
      const loop = band.loop ? writeLoop(band.loop, metreOfSheet(d.bars)) : undefined
      const tempo = band.tempo === d.chart.tempo ? undefined : String(band.tempo)
      void address.write({ loop, tempo })
    },
  )

  /** What the sheet and the wave show of the sound. */
  return computed(() => {
    const mine = band.chart?.id === id.value && !band.audition
    return {
      beat: mine && band.playing && band.beat !== undefined && band.beat >= 0 ? band.beat : undefined,
      loop: mine ? band.loop : undefined,
      inBar:
        mine && step.value && band.beat !== undefined && band.beat >= 0
          ? metreOfSheet(data.value?.bars ?? []).at(band.beat).beat + 1
          : 0,
    }
  })
}
