/* What is told before anything is there to show it waits, so that nothing is told to nobody. */
import ToastEventBus from 'primevue/toasteventbus'

const kept: unknown[] = []
const keep = (message: unknown) => void kept.push(message)
ToastEventBus.on('add', keep)

/** Tells what waited; from then on it is told at once. */
export function tellKept() {
  ToastEventBus.off('add', keep)
  for (const message of kept.splice(0)) ToastEventBus.emit('add', message)
}
