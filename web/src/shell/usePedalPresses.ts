/* Every key and MIDI switch that was learned for a pedal, wherever the focus is but in a field. */
import { onScopeDispose } from 'vue'
import { writeLoop } from '../band/settings'
import { useBand } from '../band/useBand'
import { pressed, type CommandId } from './commands'
import { keySignal } from './pedals'
import { tell } from './told'
import { isTyping, perform } from './useCommands'
import { usePedals } from './usePedals'

/** What goes round, where the hand is, and how fast. */
function where({ loop, metre, here, tempo, offered }: ReturnType<typeof useBand>): string {
  const bar = !offered && here && metre ? `bar ${metre.at(here.chord.from).bar + 1}` : ''
  return [loop && metre ? `bars ${writeLoop(loop, metre)} go round` : bar, `tempo ${tempo}`].filter(Boolean).join(', ')
}

export function usePedalPresses() {
  const pedals = usePedals()
  const band = useBand()
  /** A press by foot is told where it led, since nobody may be looking. */
  function telling() {
    const before = where(band)
    setTimeout(() => where(band) !== before && tell(where(band)), 120) // the place follows a moment later
  }
  function act(ids: readonly string[]) {
    telling()
    return perform(ids as readonly CommandId[])
  }
  function key(e: KeyboardEvent) {
    if (!pedals.learning && isTyping(e)) return
    const signal = keySignal(pressed(e))
    // A page-turner that was not taught anything leads on and back as it is.
    if (band.playing && (e.key === 'PageDown' || e.key === 'PageUp')) telling()
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
