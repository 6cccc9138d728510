/* A note is taken and put elsewhere: another moment, another half step. It is written when it is let go. */
import { useEventListener } from '@vueuse/core'
import { ref, type Ref } from 'vue'
import type { NoteByEar } from '../../api/client'
import type { geometry } from './roll'

/** Pixels from which on a press is a drag. */
const drags = 5

export function useNoteDrag(
  g: Ref<Pick<ReturnType<typeof geometry>, 'at' | 'pitch' | 'x' | 'y'>>,
  moved: (id: number, at: number, pitch: number) => void,
) {
  const taken = ref<{ n: NoteByEar; x: number; y: number; to?: { at: number; pitch: number } }>()
  function take(e: PointerEvent, n: NoteByEar) {
    if (!e.button) taken.value = { n, x: e.clientX, y: e.clientY }
  }
  useEventListener(window, 'pointermove', (e) => {
    const t = taken.value
    if (!t || (!t.to && Math.hypot(e.clientX - t.x, e.clientY - t.y) < drags)) return
    // By as much as the pointer went, from where the note is.
    t.to = {
      at: Math.max(0, g.value.at(g.value.x(t.n.at) + e.clientX - t.x)),
      pitch: Math.max(0, Math.min(127, g.value.pitch(g.value.y(t.n.pitch) + e.clientY - t.y))),
    }
  })
  useEventListener(window, 'pointerup', () => {
    const t = taken.value
    taken.value = undefined
    if (!t?.to) return
    // The click that follows is the drag's, and means nothing else.
    const deaf = (e: Event) => e.stopPropagation()
    window.addEventListener('click', deaf, { capture: true, once: true })
    setTimeout(() => window.removeEventListener('click', deaf, { capture: true }), 50)
    if (t.to.pitch !== t.n.pitch || Math.abs(t.to.at - t.n.at) > 0.004) moved(t.n.id, t.to.at, t.to.pitch)
  })
  useEventListener(window, 'pointercancel', () => (taken.value = undefined))
  return {
    take,
    /** A note as it is drawn: where it is held, while it is. */
    held: (n: NoteByEar): NoteByEar => (taken.value?.n.id === n.id && taken.value.to ? { ...n, ...taken.value.to } : n),
  }
}
