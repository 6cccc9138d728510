import { shallowRef, watch, type ShallowRef } from 'vue'

/**
 * A value that follows its source one frame behind: for what may wait until the frame in hand is painted. While the
 * band plays it waits for as long as wait says, in milliseconds, so that the beat is shown first.
 */
export function afterPaint<T>(source: () => T, wait: () => number): ShallowRef<T> {
  const out = shallowRef(source()) as ShallowRef<T>
  let asked = 0
  watch(source, (value) => {
    if (out.value === undefined) {
      out.value = value
      return
    }
    const mine = ++asked
    requestAnimationFrame(() => setTimeout(() => mine === asked && (out.value = value), wait()))
  })
  return out
}
