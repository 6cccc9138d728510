/* Bars that are drawn over go round: from the one where it began to the one where it ends. One bar is a press, and no loop. */
import { ref } from 'vue'

/** barAt tells the bar under a pointer, from 0; done what was drawn over, both ends included. */
export function useBarDrag(barAt: (e: PointerEvent) => number | undefined, done: (from: number, to: number) => void) {
  const drawn = ref<{ from: number; to: number }>()
  let began: number | undefined
  let over = false
  return {
    /** What is drawn over now. */
    drawn,
    start(e: PointerEvent) {
      began = e.button ? undefined : barAt(e)
      over = false
    },
    move(e: PointerEvent) {
      const bar = began === undefined ? undefined : barAt(e)
      if (bar === undefined || (bar === began && !over)) return
      over = true
      drawn.value = { from: Math.min(began!, bar), to: Math.max(began!, bar) }
    },
    end() {
      const d = drawn.value
      drawn.value = began = undefined
      if (d) done(d.from, d.to)
    },
    cancel() {
      drawn.value = began = undefined
    },
    /** The press that ends a drag is none of its own. */
    click(e: MouseEvent) {
      if (over) e.stopPropagation()
      over = false
    },
  }
}

/** The bar under a pointer among elements that tell theirs, counted from 1. */
export const barUnder = (e: PointerEvent) => {
  const bar = document.elementFromPoint(e.clientX, e.clientY)?.closest<HTMLElement>('[data-bar]')?.dataset.bar
  return bar ? Number(bar) - 1 : undefined
}
