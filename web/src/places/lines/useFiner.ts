/* At the goal of its ladder an exercise goes on in finer notes, and begins again lower. How it was asked for is remembered,
   so that it stays the same exercise. */
import { computed, type Ref } from 'vue'
import { askLine } from '../../api/kept'
import { useCatalogue } from '../../api/queries'
import type { DrillBody } from '../../api/client'
import { useBandSettings } from '../../band/useBandSettings'
import { finer, paceOf } from '../../listen/rungs'
import { useSetting } from '../../memory/settings'
import type { LineState } from './useLine'

const asked = () => useSetting<Record<string, DrillBody>>('drills', {})

/** Remembers how the exercise of a line was asked for. */
export function remember(id: number, task: DrillBody) {
  const all = asked()
  all.value = { ...all.value, [id]: task }
}

export function useFiner(id: Ref<number>, state: LineState) {
  const tasks = asked()
  const { kept } = useBandSettings()
  const catalogue = useCatalogue()
  /** What comes after the goal, where the line is an exercise. */
  const next = computed(() => {
    const line = state.line.value
    const paces = catalogue.data.value?.paces
    if (!line?.exercise || !paces) return undefined
    const known = tasks.value[id.value]
    const task = known?.drill === line.exercise ? known : { drill: line.exercise, pace: '' }
    const now = paceOf(paces, [...new Set(line.notes.map((n) => n.start))]) ?? task.pace
    const to = finer(paces, now, kept.ladder.goal)
    return to && { ...to, task: { ...task, pace: to.pace.id } }
  })
  return {
    next,
    goal: computed(() => kept.ladder.goal),
    /** Writes the exercise in the next finer notes; gives the tempo to begin at. */
    async go() {
      const to = next.value
      const line = state.line.value
      if (!to || !line) return undefined
      await state.take(askLine.drill(line, to.task), `${to.pace.name} from ${to.tempo}`)
      remember(id.value, to.task)
      return to.tempo
    },
  }
}
