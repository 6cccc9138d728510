/* Parts that are not in the first drawing come after it, so that it need not wait for them. */
import { defineAsyncComponent, nextTick, onScopeDispose, watch, type Component, type Ref } from 'vue'

let goOn = () => {}
const drawn = new Promise<void>((done) => (goOn = done))
const loads: (() => Promise<unknown>)[] = []

/** A part that is loaded once the first place is drawn; meanwhile something may stand for it. */
export function later<T extends Component>(load: () => Promise<{ default: T }>, meanwhile?: Component): T {
  const loader = () => drawn.then(load)
  loads.push(loader)
  return defineAsyncComponent({ loader, loadingComponent: meanwhile, delay: 0, onError: againSoon }) as T
}

/** A part that did not arrive is asked for again: a press that needs it is not lost. */
export function againSoon(_: Error, again: () => void, giveUp: () => void, tries: number) {
  if (tries > 6) giveUp()
  else setTimeout(again, 250 * 2 ** (tries - 1))
}

/** Begins with them, whether they are needed already or not. */
export function loadTheRest() {
  goOn()
  for (const load of loads) void load().catch(() => {}) // it is told where one is needed
}

/** So long a first drawing is waited for at most, and then an idle moment, in milliseconds. */
const longest = 3000
const idlest = 600

/** Does something, once, when anything was drawn of the place and the browser has nothing better to do; a browser that is never
 * idle is not waited for, and a player who presses something is not kept waiting at all. */
export function onceDrawn(place: string, then: () => void) {
  const presses = ['pointerdown', 'keydown'] as const
  let done = false
  const go = () => {
    if (done) return
    done = true
    for (const press of presses) window.removeEventListener(press, go, true)
    then()
  }
  for (const press of presses) window.addEventListener(press, go, true)
  const began = performance.now()
  const look = () => {
    if (done) return
    if (!document.querySelector(place) && performance.now() - began < longest) return void setTimeout(look, 20)
    globalThis.requestIdleCallback?.(go)
    setTimeout(go, idlest)
  }
  look()
}

/** Opens a part beside what was pressed; where it is not there yet, as soon as it is. */
export function useOpener<P extends { toggle: (event: Event, target?: unknown) => void }>(
  part: Readonly<Ref<P | null | undefined>>,
) {
  let waiting = () => {}
  onScopeDispose(() => waiting())
  return (event: Event) => {
    const target = event.currentTarget
    waiting()
    if (part.value) return part.value.toggle(event, target)
    // By then the event has no target any more.
    const stop = watch(part, (now) => {
      if (!now) return
      stop()
      // What opens while it is mounted is not put beside anything.
      void nextTick(() => now.toggle({ ...event, currentTarget: target } as Event, target))
    })
    waiting = stop
  }
}
