/* A chart or a lick as it is edited: fields that are changed at once, kept by themselves, and gone back through. */
import { useEventListener } from '@vueuse/core'
import { onScopeDispose, ref, shallowRef } from 'vue'
import { mergeFields } from './merge'
import { apply, diff, type Change } from './steps'
import { useAutosave, type Keeps } from './useAutosave'
import { useHistory } from './useHistory'

export function useRecord<B extends object>(how: {
  keeps: () => Keeps<B> | undefined
  /** of what is kept, what is edited here */
  part: (kept: B) => B
  /** it cannot be kept as it stands */
  waits?: () => boolean | string
  changed?: () => void
}) {
  const body = shallowRef<B>()
  const trouble = ref('')
  const history = useHistory(body)
  const saving = useAutosave<B>({
    body,
    keeps: how.keeps,
    waits: how.waits ?? (() => false),
    trouble,
    join(saved, kept, asked) {
      const now = body.value
      const whole = now && mergeFields(saved, now, how.part(kept))
      if (!whole) return false
      if (asked) history.record('what was changed elsewhere', now, whole)
      else history.joined(diff(saved, how.part(kept)))
      put(whole)
      return true
    },
  })
  function put(next: B) {
    body.value = next
    saving.changed()
    how.changed?.()
    saving.keep()
  }
  const turn = (changes?: Change[]) => {
    if (!changes || !body.value) return
    trouble.value = ''
    put(apply(changes, body.value))
  }
  useEventListener(document, 'visibilitychange', () => document.visibilityState === 'hidden' && saving.flush())
  useEventListener(window, 'pagehide', () => saving.flush())
  onScopeDispose(() => {
    saving.flush()
    how.keeps()?.leave?.()
  })

  return {
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    undoName: history.undoName,
    redoName: history.redoName,
    body,
    trouble,
    state: saving.state,
    why: saving.why,
    now: saving.now,
    /** Tries again to keep what could not be. */
    settled: () => saving.state.value !== 'saved' && saving.keep(),
    /** Shows what has just been read, with nothing to take back. */
    open(read: B) {
      body.value = read
      history.begin()
    },
    /** Changes fields; typed tells that quick changes of the same are one step. */
    change(name: string, part: Partial<B>, typed = false) {
      if (!body.value) return
      trouble.value = ''
      const next = { ...body.value, ...part }
      history.record(name, body.value, next, typed)
      put(next)
    },
    /** Does again what an earlier visit could not get kept. */
    bring: turn,
    /** What another tab has kept is there too; to go back takes back mine and leaves theirs. */
    join(theirs: Change[]) {
      if (!body.value || !theirs.length) return
      history.joined(theirs)
      body.value = apply(theirs, body.value)
      how.changed?.()
    },
    undo: () => turn(history.takenBack()),
    redo: () => turn(history.doneAgain()),
  }
}
