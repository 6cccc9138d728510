/* Who goes to another place by keys, or has it read out, is at its heading there, and back where the way began. */
import { nextTick, onScopeDispose } from 'vue'
import { useRouter } from 'vue-router'

/** Milliseconds in which a place comes to have a heading. */
const patience = 2000
/** And in which it takes the place of the one before. */
const same = 400

/** Brings the focus to the heading of what is in view, or to the whole of it. */
export function focusPlace() {
  const main = document.querySelector<HTMLElement>('main')
  const to = main?.querySelector<HTMLElement>('h1') ?? main
  if (!to) return
  if (!to.hasAttribute('tabindex')) to.tabIndex = -1
  to.focus({ preventScroll: true })
}

export function useFocusOnPlace() {
  const router = useRouter()
  const position = () => (history.state as { position?: number } | null)?.position ?? 0
  let last = position()
  const stop = router.afterEach(async (to, from) => {
    const now = position()
    const returns = now < last
    last = now
    if (to.path === from.path) return
    const began = performance.now()
    const main = document.querySelector('main')
    const [was, place] = [document.activeElement, main?.firstElementChild]
    for (await nextTick(); performance.now() - began < patience; await new Promise((r) => setTimeout(r, 50))) {
      if (router.currentRoute.value.path !== to.path) return
      // One place may show another thing of its kind without being made anew.
      if (main?.firstElementChild === place && performance.now() - began < same) continue
      const focus = document.activeElement
      // A place that has put the focus somewhere itself, or a player who has, knows better.
      if (focus && focus !== document.body && focus !== was && (main?.contains(focus) || focus.closest('[role=dialog]'))) return // prettier-ignore
      const link = returns && [...(main?.querySelectorAll('a') ?? [])].find((a) => new URL(a.href, location.href).pathname === from.path) // prettier-ignore
      if (link) return link.focus()
      if (!returns && main?.querySelector('h1')) break
    }
    focusPlace()
  })
  onScopeDispose(stop)
}
