/* Every key and MIDI switch that was learned for a pedal, wherever the focus is but in a field. */
import { onScopeDispose } from 'vue'
import { useBand } from '../band/useBand'
import { pressed, type CommandId } from './commands'
import { keySignal } from './pedals'
import { isTyping, perform } from './useCommands'
import { usePedals } from './usePedals'

export function usePedalPresses() {
  const pedals = usePedals()
  const band = useBand()
  const act = (ids: readonly string[]) => perform(ids as readonly CommandId[])
  function key(e: KeyboardEvent) {
    if (!pedals.learning && isTyping(e)) return
    const signal = keySignal(pressed(e))
    if (!signal || (!pedals.learning && e.repeat) || !pedals.signal(signal, band.playing, performance.now(), act))
      return
    e.preventDefault()
    e.stopImmediatePropagation()
  }
  window.addEventListener('keydown', key, { capture: true })
  onScopeDispose(() => window.removeEventListener('keydown', key, { capture: true }))
  pedals.through((signal) => pedals.signal(signal, band.playing, performance.now(), act))
  pedals.wake()
}
