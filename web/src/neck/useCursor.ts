/* Any place of a neck, marked or not, is come to by the arrow keys, and answers. */
import { ref } from 'vue'
import type { Instrument, Place } from '../api/client'
import type { Region } from './region'

const ways: Record<string, [strings: number, frets: number]> = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
}

/** The place that an arrow leads to, as the neck is seen: strings count from the highest, a left-handed neck is turned. */
export function stepped(
  from: Place,
  arrow: string,
  on: { strings: number; last: number; left?: boolean },
): Place | undefined {
  const way = ways[arrow]
  if (!way) return undefined
  const [strings, frets] = way
  return {
    string: Math.max(1, Math.min(on.strings, from.string + strings)),
    fret: Math.max(0, Math.min(on.last, from.fret + (on.left ? -frets : frets))),
  }
}

export function useCursor(
  props: { instrument: Instrument; window: Region },
  strings: () => number,
  emit: { (e: 'place', at: Place): void; (e: 'press', at: Place): void },
) {
  const cursor = ref<Place>()
  function key(e: KeyboardEvent) {
    const now = cursor.value ?? { string: strings(), fret: props.window.low }
    const { last, left } = props.instrument
    const next = e.altKey || e.ctrlKey || e.metaKey || e.shiftKey ? undefined : stepped(now, e.key, { strings: strings(), last, left }) // prettier-ignore
    if (next) cursor.value = next
    else if (e.key === 'Enter') emit('place', now)
    else if (e.key === ' ') emit('press', now)
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  return { cursor, key }
}
