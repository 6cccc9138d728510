/* The way back and forth through what was done to a document; each step has a name. One for all editors. */
import { computed, markRaw, type Ref } from 'vue'
import { useManualRefHistory } from '@vueuse/core'

/** How soon a second step of the same name joins the first, in milliseconds: so a word typed is one step. */
const together = 1200

export function useHistory<T extends object>(state: Ref<T | undefined>) {
  const history = useManualRefHistory(state, { capacity: 500 })
  const names = new WeakMap<T, string>()
  let last = { name: '', at: 0 }

  /** Remembers the state as it is now; joins tells that steps of one name in quick succession are one. */
  function commit(name: string, joins = false) {
    if (!state.value) return
    names.set(state.value, name)
    const now = Date.now()
    if (joins && last.name === name && now - last.at < together && !history.canRedo.value)
      history.last.value = markRaw({ snapshot: state.value, timestamp: now })
    else history.commit()
    last = { name, at: now }
  }
  function step(by: () => void) {
    by()
    last = { name: '', at: 0 }
  }
  return {
    commit,
    undo: () => step(history.undo),
    redo: () => step(history.redo),
    /** Takes the last step back as if it had never been. */
    drop: () =>
      step(() => {
        if (!history.canUndo.value) return
        history.undo()
        history.redoStack.value = history.redoStack.value.slice(1)
      }),
    /** From here on there is nothing to go back to. */
    begin: () => {
      history.commit()
      history.clear()
    },
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    undoName: computed(() => names.get(history.last.value.snapshot as T) ?? ''),
    redoName: computed(() => names.get(history.redoStack.value[0]?.snapshot as T) ?? ''),
  }
}
export type History = Pick<
  ReturnType<typeof useHistory>,
  'undo' | 'redo' | 'canUndo' | 'canRedo' | 'undoName' | 'redoName'
>
