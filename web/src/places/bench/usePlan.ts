import { computed, shallowRef, watch } from 'vue'
import { useToast } from 'primevue/usetoast'
import type { Place, Plan } from '../../api/client'
import { useChartChanges } from '../../api/queries'
import { same } from './moves'
import type { Bench, Step } from './useBench'

type Pin = NonNullable<Plan['pins']>[number]
const spot = ({ string, fret }: Place) => ({ string, fret })

/** What the player decides about the chart: saved as it is done, each step undoable. */
export function usePlan(bench: Bench) {
  const changes = useChartChanges()
  const toast = useToast()
  const pending = shallowRef<Plan>()
  const past = shallowRef<Plan[]>([])
  let keeper: ReturnType<typeof changes.planner> | undefined
  let shown = 0
  let saving = 0
  watch(
    bench.data,
    (data) => {
      if (!data || saving) return // what is being saved knows better
      pending.value = undefined
      if (shown !== data.chart.id) keeper = changes.planner((shown = data.chart.id), data.chart.title)
      keeper!.at(data.chart)
    },
    { immediate: true },
  )
  watch(bench.id, () => (past.value = []))
  const plan = computed<Plan>(() => pending.value ?? bench.data.value?.chart.plan ?? {})

  async function save(next: Plan) {
    pending.value = next
    saving++
    try {
      await keeper?.save(next)
    } catch (e) {
      toast.add({ severity: 'error', summary: 'Not saved', detail: (e as Error).message, life: 8000 })
    }
    if (--saving) return
    await changes.fresh()
    pending.value = undefined
    if (bench.data.value) keeper?.at(bench.data.value.chart)
  }
  const set = (change: Partial<Plan>) => {
    past.value = [...past.value.slice(-49), plan.value]
    return save({ ...plan.value, ...change })
  }
  const undo = () => {
    const before = past.value.at(-1)
    if (!before) return
    past.value = past.value.slice(0, -1)
    save(before)
  }

  const frets = () => ({ low: bench.window.value?.low ?? 0, high: bench.window.value?.high ?? 0 })
  const here = (p: { low: number; high: number }) => p.low === frets().low && p.high === frets().high
  const of = (s: Step) => (p: Pin) => here(p) && p.bar === s.bar + 1 && p.beat === s.beat
  const pinned = (i: number) => {
    const s = bench.steps.value[i]
    return !!s && (plan.value.pins ?? []).some(of(s))
  }
  /** Chooses a target by hand, or gives the choice back to the thread. */
  const pin = (i: number, place?: Place) => {
    const s = bench.steps.value[i]
    if (!s) return
    const others = (plan.value.pins ?? []).filter((p) => !of(s)(p))
    return set({ pins: place ? [...others, { ...frets(), bar: s.bar + 1, beat: s.beat, ...spot(place) }] : others })
  }
  const unpinAll = () => set({ pins: (plan.value.pins ?? []).filter((p) => !here(p)) })
  const pins = computed(() => (plan.value.pins ?? []).filter(here).length)

  /** Chooses where a pitch is played, in place of another place of it. */
  const pick = (chosen: Place, instead?: Place) => {
    const others = (plan.value.picks ?? []).filter((p) => !(here(p) && same(p, instead)))
    return set({ picks: [...others, { ...frets(), ...spot(chosen) }] })
  }
  return { plan, past, set, undo, pin, pinned, pins, unpinAll, pick }
}

export type PlanState = ReturnType<typeof usePlan>
