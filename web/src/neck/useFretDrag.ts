/* Dragging along the fret numbers sets the player's own window. */
import { computed, ref, type Ref } from 'vue'
import type { geometry } from './geometry'

export function useFretDrag(
  g: Ref<ReturnType<typeof geometry>>,
  svg: Ref<SVGSVGElement | undefined>,
  done: (low: number, high: number) => void,
) {
  const drag = ref<{ from: number; to: number }>()
  const span = () => [Math.min(drag.value!.from, drag.value!.to), Math.max(drag.value!.from, drag.value!.to)] as const
  const under = (e: PointerEvent) => g.value.fretAt(e.clientX - svg.value!.getBoundingClientRect().left)
  return {
    start(e: PointerEvent) {
      const fret = under(e)
      drag.value = { from: fret, to: fret }
      ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
    },
    move(e: PointerEvent) {
      if (drag.value) drag.value.to = under(e)
    },
    /** One fret is no window. */
    end() {
      if (!drag.value) return
      const [low, high] = span()
      drag.value = undefined
      if (low !== high) done(low, high)
    },
    cancel: () => (drag.value = undefined),
    dragged: computed(() => {
      if (!drag.value) return
      const [low, high] = span()
      const [a, b] = [g.value.wire(Math.max(low - 1, 0)), g.value.wire(high)]
      return { x: Math.min(a, b), width: Math.abs(b - a) }
    }),
  }
}
