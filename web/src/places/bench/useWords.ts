/* What the cards of the Bench read out. The neck and the sheet follow a step at once; what is read in words follows a frame
   later, so that the step is quick. */
import type { Ref } from 'vue'
import type { Blend } from '../../api/client'
import { useBand } from '../../band/useBand'
import { afterPaint } from './afterPaint'
import type { Bench } from './useBench'
import type { useGrip } from './useGrip'
import type { PlanState } from './usePlan'

export function useWords(
  bench: Bench,
  plan: PlanState,
  grip: ReturnType<typeof useGrip>,
  blend: Ref<Blend | undefined>,
) {
  const { at, step, chord, coming, window, run, moves, targets, nextStep, nextTarget } = bench
  return afterPaint(() => {
    if (!step.value || !chord.value || !run.value || !window.value || !blend.value) return
    return {
      run: {
        chord: chord.value,
        run: run.value,
        window: window.value,
        shape: grip.shape.value,
        grip: grip.grip.value && grip.frets.value,
        elsewhere: grip.elsewhere.value,
      },
      blend: { chord: chord.value, blend: blend.value, window: window.value },
      crossing: {
        step: step.value,
        coming: coming.value,
        moves: moves.value,
        enclosed: bench.enclosed.value,
        from: targets.value[at.value],
        to: nextTarget.value,
        pinned: plan.pinned(nextStep.value),
      },
    }
  }, useBand().settling)
}
