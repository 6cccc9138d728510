/* A row of choices that is wider than the screen shows the one that is chosen. */
import { useEventListener, useMutationObserver, useTimeoutFn } from '@vueuse/core'
import { watch } from 'vue'
import { useRoute } from 'vue-router'

/** How far a row has to be drawn along, so that one in it is seen with some room at its side. */
export function drawnTo(row: { left: number; right: number }, one: { left: number; right: number }, room = 24): number {
  if (one.left < row.left) return one.left - row.left - room
  if (one.right > row.right) return one.right - row.right + room
  return 0
}

export function useChosenInSight() {
  const show = () => {
    for (const chosen of document.querySelectorAll('.segments [aria-pressed="true"]')) {
      let row = chosen.parentElement
      while (row && row.scrollWidth <= row.clientWidth) row = row.parentElement
      if (!row || row === document.documentElement || row.tagName === 'BODY') continue
      const by = drawnTo(row.getBoundingClientRect(), chosen.getBoundingClientRect())
      if (by) row.scrollLeft += by
    }
  }
  useMutationObserver(document.body, show, { subtree: true, attributeFilter: ['aria-pressed'] })
  useEventListener('resize', show)
  // A place may come a moment after its address.
  const soon = useTimeoutFn(show, 400, { immediate: true })
  const route = useRoute()
  watch(() => route.path, soon.start)
}
