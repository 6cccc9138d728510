/* Of many lines of music those in sight are there, and one more on either side. */
import { onScopeDispose, shallowRef, triggerRef } from 'vue'

/** So many lines are always there: a chorus or two. */
export const few = 12

/** Watches elements by their number; `has` tells whether one is in sight, or about to be. */
export function useInSight() {
  const seen = shallowRef(new Set<number>())
  const all = shallowRef(typeof IntersectionObserver === 'undefined')
  const numbers = new WeakMap<Element, number>()
  const elements = new Map<number, Element>()
  const observer = all.value
    ? undefined
    : new IntersectionObserver(
        (entries) => {
          for (const e of entries) {
            const number = numbers.get(e.target)
            if (number === undefined) continue
            if (e.isIntersecting) seen.value.add(number)
            else seen.value.delete(number)
          }
          triggerRef(seen)
        },
        // A line is about as tall as this; margins of what scrolls inside the page are told apart.
        { rootMargin: '300px 0px', scrollMargin: '300px 0px' } as IntersectionObserverInit,
      )
  /* What goes onto paper is all there. */
  const onPaper = () => (all.value = true)
  const offPaper = () => (all.value = !observer)
  window.addEventListener('beforeprint', onPaper)
  window.addEventListener('afterprint', offPaper)
  onScopeDispose(() => {
    observer?.disconnect()
    window.removeEventListener('beforeprint', onPaper)
    window.removeEventListener('afterprint', offPaper)
  })
  /** Called at every patch: what is watched already stays so. */
  function watch(number: number, element: Element | null) {
    const before = elements.get(number)
    if (before === element) return
    if (before) observer?.unobserve(before)
    if (!element) {
      elements.delete(number)
      seen.value.delete(number)
      return
    }
    elements.set(number, element)
    numbers.set(element, number)
    observer?.observe(element)
  }
  return {
    watch,
    has: (number: number) => all.value || seen.value.has(number),
    at: (number: number) => elements.get(number),
  }
}
