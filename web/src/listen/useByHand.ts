/* The computer's keyboard and the neck on the page as an instrument: four rows of keys lie as four strings do, from the
   first fret of the position. */
import { useEventListener } from '@vueuse/core'
import { computed, reactive, ref, watch, type Ref } from 'vue'
import type { Instrument } from '../api/client'
import { useSound } from '../band/useSound'
import { isTyping } from '../shell/useCommands'

/** By where they lie, the lowest string first; whatever is printed on them. */
const rows = [
  ['KeyZ', 'KeyX', 'KeyC', 'KeyV', 'KeyB', 'KeyN', 'KeyM', 'Comma', 'Period', 'Slash'],
  ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL', 'Semicolon'],
  ['KeyQ', 'KeyW', 'KeyE', 'KeyR', 'KeyT', 'KeyY', 'KeyU', 'KeyI', 'KeyO', 'KeyP'],
  ['Digit1', 'Digit2', 'Digit3', 'Digit4', 'Digit5', 'Digit6', 'Digit7', 'Digit8', 'Digit9', 'Digit0'],
]
const signs: Record<string, string> = { Comma: ',', Period: '.', Slash: '/', Semicolon: ';' }
const printed = (code: string) => signs[code] ?? code.replace(/^(Key|Digit)/, '')

export interface Press {
  key: string
  midi: number
  /** milliseconds of the page */
  at: number
}

/** Where each key lies on a neck, from a fret on. */
export function keysOn({ midi, last }: Pick<Instrument, 'midi' | 'last'>, low: number) {
  const lowest = Math.min(rows.length, midi.length)
  return rows.slice(rows.length - lowest).flatMap((row, r) =>
    row.flatMap((code, i) => {
      const string = lowest - r
      const fret = low + i
      return fret <= last ? [{ code, string, fret, text: printed(code), midi: midi[string - 1]! + fret }] : []
    }),
  )
}

export function useByHand(
  instrument: Ref<Instrument | undefined>,
  low: Ref<number>,
  to: { struck: (p: Press) => void; released: (p: Press) => void },
  atOnce = false,
) {
  const on = ref(atOnce)
  const sound = useSound()
  const keys = computed(() => (instrument.value ? keysOn(instrument.value, low.value) : []))
  const down = reactive(new Map<string, () => void>())

  function strike(key: string, midi: number, at: number) {
    if (down.has(key)) return
    down.set(key, sound.hold(midi))
    to.struck({ key, midi, at })
  }
  function release(key: string, midi: number, at: number) {
    down.get(key)?.()
    if (down.delete(key)) to.released({ key, midi, at })
  }
  /* What a key plays is no command; Space and Escape stay what they are. */
  useEventListener(
    window,
    'keydown',
    (e: KeyboardEvent) => {
      const key = on.value && !e.ctrlKey && !e.metaKey && !e.altKey && keys.value.find((k) => k.code === e.code)
      if (!key || isTyping(e)) return
      e.preventDefault()
      e.stopPropagation()
      if (!e.repeat) strike(e.code, key.midi, e.timeStamp)
    },
    { capture: true },
  )
  useEventListener(window, 'keyup', (e: KeyboardEvent) => release(e.code, 0, e.timeStamp), { capture: true })
  const silence = () => [...down.keys()].forEach((k) => release(k, 0, performance.now()))
  useEventListener(window, 'blur', silence)
  watch(on, silence)

  const place = (string: number, fret: number) => (instrument.value?.midi[string - 1] ?? 0) + fret
  return {
    on,
    written: computed(() => keys.value.map((k) => ({ ...k, down: down.has(k.code) }))),
    press: (string: number, fret: number, at: number) => strike(`${string}:${fret}`, place(string, fret), at),
    lift: (string: number, fret: number, at: number) => release(`${string}:${fret}`, place(string, fret), at),
  }
}
