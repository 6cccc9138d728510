/* A line in the hand: what it says, what the core sees in it, and the way back. */
import { computed, ref, shallowRef, watch } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import { askLine, lineBody } from '../../api/kept'
import { Refused, type LineBody, type LineNote, type Study } from '../../api/client'

/** How a line is kept: now, or as the page is left. theirs tells that the player took what was changed elsewhere. */
export interface Keeps {
  save: (line: LineBody) => Promise<{ kept: LineBody; theirs: boolean }>
  saveLast: (line: LineBody) => void
}

export function useLine(keeps?: () => Keeps | undefined) {
  const save = !!keeps
  const study = shallowRef<Study>()
  const past = shallowRef<LineBody[]>([])
  const future = shallowRef<LineBody[]>([])
  const trouble = ref('')
  const state = ref<'saved' | 'saving' | 'unsaved'>('saved')
  const line = computed(() => study.value?.line)
  /** Notes with their indexes in the score, which is in the same order. */
  const notes = computed(() => study.value?.line.notes ?? [])

  async function keepNow() {
    const now = line.value
    const by = keeps?.()
    if (!by || !now) return
    state.value = 'saving'
    try {
      const { kept, theirs } = await by.save(now)
      if (theirs) {
        remember()
        await set(askLine.study(lineBody(kept)), false)
      }
      if (theirs || line.value === now) state.value = 'saved'
    } catch (e) {
      state.value = 'unsaved'
      trouble.value = e instanceof Error ? e.message : String(e)
      if (e instanceof Refused && e.status === 0) setTimeout(() => state.value === 'unsaved' && void keepNow(), 2000)
    }
  }
  const keep = useDebounceFn(keepNow, 500)
  function remember() {
    if (!study.value) return
    past.value = [...past.value.slice(-199), study.value.line]
    future.value = []
  }

  let asked = 0
  /** Shows what an answer brings; what comes too late is dropped. */
  async function set(answer: Promise<Study>, step = true) {
    const ticket = ++asked
    if (step && save) state.value = 'saving'
    try {
      const s = await answer
      if (ticket !== asked) return
      if (step) remember()
      study.value = s
      trouble.value = ''
      if (step) void keep()
    } catch (e) {
      if (ticket !== asked) return
      trouble.value = e instanceof Error ? e.message : String(e)
      if (state.value === 'saving') state.value = 'saved' // nothing has changed
    }
  }

  const open = (body: LineBody) => set(askLine.study(body), false)
  const change = (part: Partial<LineBody>) => line.value && set(askLine.study({ ...line.value, ...part }))
  const edit = (change_: (notes: LineNote[]) => LineNote[]) =>
    change({ notes: change_(notes.value.map((n) => ({ ...n }))) })

  function undo() {
    const before = past.value.at(-1)
    if (!before || !line.value) return
    future.value = [line.value, ...future.value]
    past.value = past.value.slice(0, -1)
    void set(askLine.study(before), false).then(keep)
  }
  function redo() {
    const next = future.value[0]
    if (!next || !line.value) return
    past.value = [...past.value, line.value]
    future.value = future.value.slice(1)
    void set(askLine.study(next), false).then(keep)
  }
  watch(trouble, (t) => t && setTimeout(() => trouble.value === t && (trouble.value = ''), 12000))

  return {
    study,
    line,
    notes,
    trouble,
    refuse: (e: unknown) => (trouble.value = e instanceof Error ? e.message : String(e)),
    state,
    open,
    change,
    edit,
    take: (answer: Promise<Study>) => set(answer),
    /** Keeps what is not kept yet, before the place is left. */
    flush: () => {
      if (state.value !== 'saved' && line.value) keeps?.()?.saveLast(line.value)
    },
    undo,
    redo,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
  }
}
export type LineState = ReturnType<typeof useLine>
