import { computed, onScopeDispose, shallowRef, watch } from 'vue'
import { useToast } from 'primevue/usetoast'
import { passing, Refused, type Place, type Plan } from '../../api/client'
import { useChartChanges } from '../../api/queries'
import { canonical } from '../../document/canonical'
import { apply, diff } from '../../document/steps'
import { mergeFields } from '../../document/merge'
import { useHistory } from '../../document/useHistory'
import { same } from './moves'
import type { Bench } from './useBench'
import type { Step } from '../../sheet/step'

type Pin = NonNullable<Plan['pins']>[number]
const spot = ({ string, fret }: Place) => ({ string, fret })

const names: Partial<Record<keyof Plan, string>> = {
  picks: 'another place',
  pins: 'a target by hand',
  thread: 'what the thread takes',
  allowed: 'degrees allowed',
  strings: 'strings',
  targets: 'what comes first',
  nearest: 'the nearest first',
  imagined: 'what is imagined',
  boxes: 'the box',
}

/** What the player decides about the chart: drawn when it is saved, each step with a way back. */
export function usePlan(bench: Bench) {
  const changes = useChartChanges()
  const toast = useToast()
  /** The plan as the player wants it; undefined until the chart is there. */
  const wanted = shallowRef<Plan>()
  const plan = computed<Plan>(() => wanted.value ?? {})
  const history = useHistory(wanted)
  let keeper: ReturnType<typeof changes.planner> | undefined
  let shown = 0
  let saving = 0
  let again: ReturnType<typeof setTimeout> | undefined
  watch(
    bench.data,
    (data) => {
      if (!data || saving) return // what is being saved knows better
      const other = shown !== data.chart.id
      if (other) keeper?.leave()
      if (other) keeper = changes.planner((shown = data.chart.id), data.chart.title)
      keeper!.at(data.chart)
      if (!other && canonical(wanted.value) === canonical(data.chart.plan)) return
      if (other) history.begin()
      else history.joined(diff(plan.value, data.chart.plan))
      wanted.value = data.chart.plan
      if (other) void takeUp()
    },
    { immediate: true },
  )
  /** Does again what an earlier visit could not get kept. */
  async function takeUp() {
    const mine = keeper!
    const left = await mine.unsent()
    if (!left.length || mine !== keeper) return
    wanted.value = apply(left, plan.value)
    await mine.takeUp(plan.value)
    await save()
  }
  onScopeDispose(() => {
    clearTimeout(again)
    keeper?.leave()
  })

  async function save() {
    clearTimeout(again)
    saving++
    try {
      const before = plan.value
      const saved = await keeper?.save(before)
      if (saved && saved.how !== 'sent') wanted.value = mergeFields(before, plan.value, saved.kept.plan) ?? plan.value
    } catch (e) {
      toast.add({ severity: 'error', summary: 'Not saved', detail: (e as Error).message, life: 8000 })
      if (e instanceof Refused && passing(e)) again = setTimeout(() => void save(), 2000)
    }
    if (--saving) return
    await changes.fresh()
    if (bench.data.value) keeper?.at(bench.data.value.chart)
  }
  const set = (change: Partial<Plan>) => {
    const next = { ...plan.value, ...change }
    history.record(names[Object.keys(change)[0] as keyof Plan] ?? 'palette', plan.value, next)
    wanted.value = next
    return save()
  }
  const undo = () => {
    if (!history.canUndo.value) return
    history.undo()
    void save()
  }
  const redo = () => {
    if (!history.canRedo.value) return
    history.redo()
    void save()
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
  const starts = (s: Step) => (b: { bar: number; beat: number }) => b.bar === s.bar + 1 && b.beat === s.beat
  /** Of two joined boxes the one chosen by hand over a chord; without one the proposal holds. */
  const boxAt = (i: number) => {
    const s = bench.steps.value[i]
    return s && plan.value.boxes?.find(starts(s))?.box
  }
  const turnBox = (i: number, box?: 'minor' | 'major') => {
    const s = bench.steps.value[i]
    if (!s) return
    const others = (plan.value.boxes ?? []).filter((b) => !starts(s)(b))
    return set({ boxes: box ? [...others, { bar: s.bar + 1, beat: s.beat, box }] : others })
  }
  return {
    boxAt,
    turnBox,
    plan,
    canUndo: history.canUndo,
    undoName: history.undoName,
    canRedo: history.canRedo,
    redoName: history.redoName,
    set,
    undo,
    redo,
    pin,
    pinned,
    pins,
    unpinAll,
    pick,
  }
}

export type PlanState = ReturnType<typeof usePlan>
