import { useEventListener } from '@vueuse/core'

/*
A press that began in one thing and ended elsewhere is no click on the page behind both. A list
closes when its entry is pressed; what comes when the finger is lifted would otherwise be taken
for a click beside the panel that holds the list, and shut it.
*/
export function useWholeClicks() {
  let pressed: EventTarget | null = null
  const first = { capture: true }
  useEventListener(window, 'pointerdown', (e) => (pressed = e.target), first)
  useEventListener(
    window,
    'click',
    (e) => {
      if (e.target === document.body && pressed && pressed !== e.target) e.stopPropagation()
    },
    first,
  )
}
