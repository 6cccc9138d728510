import { useCommands } from '../../shell/useCommands'
import { labelKinds, type Bench } from './useBench'

/** The keys that move through bars, positions and labels: on the Bench and on the music stand. */
export function useBenchKeys(bench: Bench) {
  const { at, steps, labels, own, window } = bench
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
