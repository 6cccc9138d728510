/* How much calls ask at once: it follows how they go, or stays where it was put. Where it is, is remembered. */
import { computed, ref, watch, type Ref } from 'vue'
import type { Catalogue } from '../../api/client'
import { useSetting } from '../../memory/settings'
import type { By } from './asked'
import { stepped, type Outcome } from './outcomes'

/** Where a player begins who was never asked: the roots, then the thirds. */
const begins = 1

/** chosen is a step that stays; without, it follows. */
export function useCallStep(chosen: Ref<string | undefined>, by: Ref<By>, catalogue: Ref<Catalogue | undefined>) {
  const kept = useSetting('callStep', begins)
  /** Those that can be asked for; a rhythm only where it is played. */
  const steps = computed(() => (catalogue.value?.callSteps ?? []).filter((s) => by.value === 'play' || !s.played))
  const within = (n: number) => Math.max(1, Math.min(n, steps.value.length || n))
  const step = computed(() => within(Number(chosen.value) || kept.value))
  const follows = computed(() => !chosen.value)
  const moved = ref<'harder' | 'easier'>()
  /** How many had been answered when it last moved. */
  let since = 0
  function move(by1: number, answered: number) {
    const to = within(step.value + by1)
    if (to === step.value) return
    moved.value = to > step.value ? 'harder' : 'easier'
    since = answered
    kept.value = to
  }
  return {
    step,
    steps,
    follows,
    /** which way it went last */
    moved,
    name: computed(() => steps.value[step.value - 1]?.name),
    move,
    /** Goes along with what is answered. */
    follow: (outcomes: Ref<Outcome[]>) =>
      watch(outcomes, (all) => {
        if (follows.value) move(stepped(all.slice(since)), all.length)
      }),
  }
}
export type CallStep = ReturnType<typeof useCallStep>
