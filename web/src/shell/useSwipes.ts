/* A finger that goes sideways over what bears `data-swipe` goes on or back, as the arrow keys do. */
import { useEventListener } from '@vueuse/core'
import { perform } from './useCommands'

/** How far a finger goes, in pixels; and no further up or down than half of that. */
const far = 48

export function useSwipes() {
  let began: { x: number; y: number; id: number } | undefined
  useEventListener(window, 'pointerdown', (e) => {
    const over = e.pointerType !== 'mouse' && (e.target as Element).closest?.('[data-swipe]')
    // Two fingers are no swipe.
    began = over && !began ? { x: e.clientX, y: e.clientY, id: e.pointerId } : undefined
  })
  useEventListener(window, 'pointerup', (e) => {
    const from = began
    began = undefined
    if (from?.id !== e.pointerId) return
    const [x, y] = [e.clientX - from.x, e.clientY - from.y]
    if (Math.abs(x) < far || Math.abs(y) > Math.abs(x) / 2) return
    perform(x < 0 ? ['skip', 'next', 'stretchLater'] : ['previous', 'stretchEarlier'])
  })
  useEventListener(window, 'pointercancel', () => (began = undefined))
}
