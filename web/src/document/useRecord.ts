/* A chart or a lick as it is edited: fields that are changed at once, kept by themselves, and gone back through. */
import { useEventListener } from '@vueuse/core'
import { onScopeDispose, ref, shallowRef } from 'vue'
import { mergeFields } from './merge'
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
    join(saved, theirs) {
      const whole = body.value && mergeFields(saved, body.value, how.part(theirs))
      if (whole) put(whole, 'what was changed elsewhere')
      return !!whole
    },
  })
  function put(next: B, name: string, joins = false) {
    body.value = next
    history.commit(name, joins)
    told()
  }
  function told() {
    saving.changed()
    how.changed?.()
    saving.keep()
  }
  const turn = (step: () => void) => {
    step()
    trouble.value = ''
    told()
  }
  useEventListener(document, 'visibilitychange', () => document.visibilityState === 'hidden' && saving.flush())
  useEventListener(window, 'pagehide', () => saving.flush())
  onScopeDispose(() => saving.flush())

  return {
    ...history,
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
      put({ ...body.value, ...part }, name, typed)
    },
    undo: () => history.canUndo.value && turn(history.undo),
    redo: () => history.canRedo.value && turn(history.redo),
  }
}
