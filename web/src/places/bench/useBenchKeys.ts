import { onKeyStroke } from '@vueuse/core'
import { bare } from '../../shell/keys'
import { labelKinds, type Bench } from './useBench'

/** The keys that move through bars, positions and labels: on the Bench and on the music stand. */
export function useBenchKeys(bench: Bench) {
  const { at, steps, labels, own, window } = bench
  const keys: Record<string, () => void> = {
    ArrowRight: () => bench.go(at.value + 1),
    ArrowLeft: () => bench.go(at.value - 1),
    PageDown: () => bench.go(at.value + 1),
    PageUp: () => bench.go(at.value - 1),
    Home: () => bench.go(0),
    End: () => bench.go(steps.value.length - 1),
    ArrowUp: () => bench.shift(1),
    ArrowDown: () => bench.shift(-1),
    n: () => bench.setLabels(labelKinds[(labelKinds.indexOf(labels.value) + 1) % labelKinds.length]!),
    w: () => (own.value ? bench.leaveOwn() : window.value && bench.setOwn(window.value.low, window.value.high)),
  }
  for (const n of [1, 2, 3, 4, 5]) keys[n] = () => bench.setNumber(n)
  onKeyStroke(
    (e) => bare(e) && (e.key in keys || e.key.toLowerCase() in keys),
    (e) => {
      e.preventDefault()
      ;(keys[e.key] ?? keys[e.key.toLowerCase()])?.()
    },
  )
}
