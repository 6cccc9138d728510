/* What is landed on goes round: the bars that the address names, or the change that it names, where the chart has it. What
   went round before comes back when the player leaves. */
import { computed, onBeforeUnmount, watch } from 'vue'
import { quarter } from '../../api/facts'
import { readLoop, writeLoop, type LoopBeats } from '../../band/settings'
import { useBand } from '../../band/useBand'
import { metreOf, type Metre } from '../../music/metre'
import type { Chosen } from './useChosen'

/** A change among the chords of the bars, in beats: the bar that it leaves and that it comes to; the form's end leads to its top. */
export function loopOfChange(
  bars: { at: number; chord: string }[][],
  change: string,
  metre: Metre,
): LoopBeats | undefined {
  const [from, to] = change.split(',')
  const all = bars.flat().map((c) => ({ ...c, beat: Math.floor(c.at / quarter) }))
  const i = all.findIndex((c, i) => c.chord === from && all[i + 1]?.chord === to)
  const last = all[i]
  const next = all[i + 1]
  if (!last || !next) return undefined
  const begins = Math.max(last.beat, metre.startOf(metre.at(next.beat - 1).bar))
  const ends = Math.min(all[i + 2]?.beat ?? metre.length, metre.startOf(metre.at(next.beat).bar + 1))
  return { from: begins, to: ends }
}

export function useLanded({ address, chart, ground }: Chosen) {
  const band = useBand()
  const text = address.text('loop', '')
  const change = address.text('change', '')
  const metre = computed(() => {
    const g = ground.data.value
    return g && chart.value && metreOf({ beats: chart.value.beats, bars: g.bars.length, lengths: g.lengths })
  })
  const asked = computed(() => {
    const m = metre.value
    if (!m) return undefined
    return change.value ? loopOfChange(ground.data.value!.bars, change.value, m) : text.value ? readLoop(text.value, m).loop : undefined // prettier-ignore
  })
  const before = band.loop
  watch(asked, (loop, was) => (loop || was) && band.setLoop(loop), { immediate: true })
  onBeforeUnmount(() => asked.value && band.setLoop(before))
  /* Another loop is set by hand: what the address says is no more. */
  watch(
    () => band.loop,
    (now) => {
      const a = asked.value
      if (a && (now?.from !== a.from || now.to !== a.to)) void address.write({ loop: undefined, change: undefined })
    },
  )
  return {
    /** In words, where some bars go round: "bars 5-6". */
    bars: computed(() => {
      const w = asked.value && writeLoop(asked.value, metre.value!)
      const one = w && /^(\d+)-\1$/.exec(w)?.[1]
      return one ? `bar ${one}` : w && `bars ${w.replace('-', '–')}`
    }),
    whole: () => band.setLoop(undefined),
  }
}
