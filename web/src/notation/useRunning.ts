/* What runs along while music is heard. It is moved by hand, thirty times a second: nothing is drawn anew for it. */
import { onScopeDispose, watch, type Ref } from 'vue'

/** Ticks of what is heard now; undefined in silence. */
export type Clock = () => number | undefined

/** Milliseconds between two moves, at least. */
const pause = 30

/** Puts an element where a tick is; it is hidden in silence and where that is nowhere. */
export function useRunning(
  element: Ref<HTMLElement | undefined>,
  clock: Clock,
  where: (tick: number) => { x: number; y?: number } | undefined,
) {
  let moved = 0
  const stop = watch(
    [clock, element],
    ([tick, el]) => {
      const now = performance.now()
      if (!el || (tick !== undefined && now - moved < pause)) return
      moved = now
      const at = tick === undefined ? undefined : where(tick)
      el.classList.toggle('cursor', !!at)
      if (at) el.style.transform = `translate(${at.x.toFixed(1)}px, ${(at.y ?? 0).toFixed(1)}px)`
    },
    { flush: 'post', immediate: true },
  )
  onScopeDispose(stop)
}
