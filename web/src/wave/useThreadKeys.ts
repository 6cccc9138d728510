/* The thread by the arrow keys: along it from change to change, up and down to the chord's next tone in this place. */
import { computed, ref } from 'vue'
import type { Note, Target } from '../api/client'
import { spoken } from '../music/text'

/** As a musician tells it. */
export const toneSaid = (t: Target) =>
  `${spoken(t.degree)}, ${spoken(t.note)}, string ${t.string} ${t.fret ? `fret ${t.fret}` : 'open'}`

export interface Thread {
  at: number
  steps: { bar: number }[]
  targets: (Target | undefined)[]
  /** The tones of a step's chord that lie in this place. */
  tones: (step: number) => Note[]
}

/** The tone above or below one by pitch; past the last of them, or from none, nothing. */
export function toneFrom(tones: Note[], now: Target | undefined, up: boolean): Note | undefined {
  if (!now) return tones[0]
  const beyond = tones.filter((n) => (up ? n.midi > now.midi : n.midi < now.midi))
  return beyond.reduce<Note | undefined>((a, n) => (!a || (up ? n.midi < a.midi : n.midi > a.midi) ? n : a), undefined)
}

export function useThreadKeys(thread: () => Thread, go: (step: number) => void, pin: (step: number, to: Note) => void) {
  const held = ref(false)
  function key(e: KeyboardEvent) {
    if (e.altKey || e.ctrlKey || e.metaKey || e.shiftKey) return
    const { at, steps, targets, tones } = thread()
    const along = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
    if (along) {
      if (steps[at + along]) go(at + along)
    } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
      const to = toneFrom(tones(at), targets[at], e.key === 'ArrowUp')
      if (to) pin(at, to)
    } else return
    e.preventDefault()
    e.stopPropagation()
  }
  const told = computed(() => {
    const { at, steps, targets } = thread()
    const [s, t] = [steps[at], targets[at]]
    if (!held.value || !s) return ''
    return `bar ${s.bar + 1}: ${t ? toneSaid(t) : 'no target'}`
  })
  return { key, told, held }
}
