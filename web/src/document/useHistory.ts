/* The way back and forth through what was done to a document, as steps that are turned round; each has a name. What came
   from elsewhere meanwhile is not part of it: to go back takes back mine and leaves theirs. One for all editors. */
import { computed, shallowRef, type Ref } from 'vue'
import { apply, diff, inverse, over, stepsVersion, type Change, type Step } from './steps'

/** How soon a second step of the same name joins the first, in milliseconds: so a word typed is one step. */
const together = 1200
/** How many steps are remembered. */
const most = 500

export function useHistory<T extends object>(state: Ref<T | undefined>) {
  const done = shallowRef<Step[]>([])
  const undone = shallowRef<Step[]>([])
  let last = { name: '', at: 0, before: undefined as T | undefined }
  const apartFrom = () => (last = { name: '', at: 0, before: undefined })

  /** Remembers what was done between two states; joins tells that steps of one name in quick succession are one. */
  function record(name: string, before: T, after: T, joins = false): Step {
    const now = Date.now()
    const joined = joins && last.name === name && !!last.before && now - last.at < together && !undone.value.length
    const from = joined ? last.before! : before
    const step = { v: stepsVersion, name, changes: diff(from, after) }
    done.value = [...done.value.slice(0, joined ? -1 : undefined), step].slice(-most)
    undone.value = []
    last = { name, at: now, before: from }
    return step
  }
  /** Takes the last step from one side to the other; what it changes, if there is one. */
  function turn(from: Ref<Step[]>, to: Ref<Step[]>, by: (s: Step) => Change[]): Change[] | undefined {
    const step = from.value.at(-1)
    if (!step) return undefined
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, step]
    apartFrom()
    return by(step)
  }
  const takenBack = () => turn(done, undone, (s) => inverse(s.changes))
  const doneAgain = () => turn(undone, done, (s) => s.changes)
  const show = (changes?: Change[]) => {
    if (changes && state.value) state.value = apply(changes, state.value)
  }
  const left = (list: Step[], change: (s: Step) => Change[]) =>
    list.map((s) => ({ ...s, changes: change(s) })).filter((s) => s.changes.length)

  return {
    record,
    undo: () => show(takenBack()),
    redo: () => show(doneAgain()),
    /** What going back or forth changes, for a document that does it by a command. */
    takenBack,
    doneAgain,
    /** Forgets a step as if it had never been. */
    forget(step: Step) {
      done.value = done.value.filter((s) => s !== step)
      apartFrom()
    },
    /** Something came from elsewhere: what it touched is not ours to take back any more. */
    joined(theirs: Change[]) {
      done.value = left(done.value, (s) => over(theirs, s.changes))
      undone.value = left(undone.value, (s) => over(theirs, s.changes))
      apartFrom()
    },
    /** From here on there is nothing to go back to. */
    begin() {
      done.value = []
      undone.value = []
      apartFrom()
    },
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    undoName: computed(() => done.value.at(-1)?.name ?? ''),
    redoName: computed(() => undone.value.at(-1)?.name ?? ''),
  }
}
export type History = Pick<
  ReturnType<typeof useHistory>,
  'undo' | 'redo' | 'canUndo' | 'canRedo' | 'undoName' | 'redoName'
>
