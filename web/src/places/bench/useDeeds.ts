/* What is done on the Bench by a press or a key, beside stepping: another target, another palette, a loop, a place chosen. */
import { computed, type Ref } from 'vue'
import type { Blend, Note, Place } from '../../api/client'
import { usePalettes } from '../../api/palettes'
import { useBand } from '../../band/useBand'
import { writeLoop } from '../../band/settings'
import { useLanding } from '../../listen/landing'
import { spanOf, written } from '../../neck/region'
import { nearest, same } from './moves'
import type { Bench } from './useBench'
import { metreOfSheet } from '../../music/metre'
import type { PlanState } from './usePlan'

export function useDeeds(bench: Bench, plan: PlanState, blend: Ref<Blend | undefined>) {
  const { data, steps, at, step, run, moves, targets, nextStep, nextTarget, window, own } = bench
  const go = useLanding()
  const band = useBand()
  const { all: palettes } = usePalettes()

  const aim = (p: Place) => nextStep.value >= 0 && plan.pin(nextStep.value, p)
  /** The next move in the list of crossings becomes the way into the next change. */
  function turnTarget() {
    const ways = moves.value.map((m) => nearest(m, targets.value[at.value])).filter((p) => !!p)
    const seen = ways.filter((p, i) => ways.findIndex((q) => same(q, p)) === i)
    if (!seen.length) return
    aim(seen[(seen.findIndex((p) => same(p, nextTarget.value)) + 1) % seen.length]!)
  }
  function turnPalette() {
    const all = palettes.value
    const i = all.findIndex((p) => p.id === (plan.plan.value.palette || all[0]?.id))
    if (all.length) plan.set({ palette: all[(i + 1) % all.length]!.id })
  }
  /** The box of each chord of the form, where the palette joins two; what was chosen by hand, or else the proposal. */
  const boxes = computed(() =>
    blend.value?.box ? steps.value.map((s, i) => plan.boxAt(i) ?? data.value?.blends[s.chord]?.box) : undefined,
  )
  const boxByHand = computed(() => plan.boxAt(at.value))
  /** A loop from the bar in hand to another. */
  const loopTo = (bar: number) => loopBars(Math.min(bar, step.value!.bar), Math.max(bar, step.value!.bar))
  function loopBars(from: number, to: number) {
    const metre = metreOfSheet(data.value!.bars)
    band.setLoop({ from: metre.startOf(from), to: metre.startOf(to + 1) })
  }
  /** The bars of the change that comes: the one it leads out of, and the one into which; past the end of the form the last two. */
  function loopChange() {
    const next = nextStep.value > at.value ? nextStep.value : steps.value.length - 1
    loopBars(steps.value[next - 1]?.bar ?? 0, steps.value[next]!.bar)
  }
  /** What is looked at is practised by a way of Practice, in this place and at this tempo: its bars go round, or the whole form.
   * Without a way it is the change that comes, on the degree that is aimed for. */
  function land(mode?: string, whole = false) {
    const bars = mode ? band.here?.chord : band.here?.change
    const { low, high, strings } = own.value ?? window.value!
    go({
      chart: bench.id.value,
      mode,
      degree: nextTarget.value?.degree,
      frets: spanOf({ low, high }),
      on: written(strings),
      loop: whole || !bars ? undefined : writeLoop(bars, metreOfSheet(data.value!.bars)),
      tempo: band.tempo,
    })
  }
  /** Where a pitch is played, in place of another place of it. */
  const pick = (n: Note) =>
    plan.pick(
      n,
      run.value?.notes.find((m) => m.midi === n.midi),
    )
  return { aim, turnTarget, turnPalette, boxes, boxByHand, loopTo, loopBars, loopChange, land, pick }
}
