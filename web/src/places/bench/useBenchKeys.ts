import { useSummary } from '../../shell/summary'
import { spoken } from '../../music/text'
import { useCommands } from '../../shell/useCommands'
import { labelKinds, type Bench } from './useBench'

/** The keys that move through bars, positions and labels: on the Bench and on the music stand. */
export function useBenchKeys(bench: Bench) {
  const { at, steps, labels, own, window, step, chord, targets } = bench
  useSummary({
    whole: async () => (await import('./summary')).summaryOf(bench),
    now: () => {
      const t = targets.value[at.value]
      return `bar ${(step.value?.bar ?? 0) + 1}: ${spoken(chord.value?.symbol ?? '')}${t ? `, ${spoken(t.degree)}, ${spoken(t.note)}` : ''}`
    },
  })
  useCommands({
    next: () => bench.go(at.value + 1),
    previous: () => bench.go(at.value - 1),
    first: () => bench.go(0),
    last: () => bench.go(steps.value.length - 1),
    higher: () => bench.shift(1),
    lower: () => bench.shift(-1),
    position: (e) => bench.setNumber(Number(e.key)),
    labels: () => bench.setLabels(labelKinds[(labelKinds.indexOf(labels.value) + 1) % labelKinds.length]!),
    own: () => (own.value ? bench.leaveOwn() : window.value && bench.setOwn(window.value.low, window.value.high)),
  })
}
