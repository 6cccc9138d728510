/* A line in the hand: its document, and how it is kept. */
import { computed, ref, watch } from 'vue'
import { useDebounceFn, useThrottleFn } from '@vueuse/core'
import { askLine, lineBody } from '../../api/kept'
import { Refused, type LineBody } from '../../api/client'
import { change } from '../../document/notes'
import { mergeLines } from '../../document/merge'
import { useDocument } from '../../document/useDocument'

/** How a line is kept: now, or as the page is left. theirs tells that the player took what was changed elsewhere. */
export interface Keeps {
  save: (line: LineBody) => Promise<{ kept: LineBody; theirs: boolean }>
  saveLast: (line: LineBody) => void
  /** the next save meets what was changed elsewhere once more */
  rewind: () => unknown
  /** puts it by in the browser until it is kept; false where the browser keeps nothing */
  hold: (line: LineBody) => boolean
}

const words: Partial<Record<keyof LineBody, string>> = {
  title: 'title',
  locked: 'lock',
  palette: 'palette',
  low: 'frets',
}

export function useLine(keeps?: () => Keeps | undefined) {
  /** kept · being kept · not kept yet */
  const state = ref<'saved' | 'saving' | 'unsaved'>('saved')
  /** Whether the browser has put by what is not saved. */
  let held = true
  const hold = useThrottleFn(() => doc.line.value && (held = keeps?.()?.hold(doc.line.value) !== false), 150, true)
  const unsaved = (why: string) => {
    state.value = 'unsaved'
    trouble.value = held
      ? why
      : `${why} This browser keeps nothing meanwhile, being full or private: leave the page open.`
  }
  const doc = useDocument(askLine.study, {
    changed() {
      if (!keeps) return
      state.value = 'saving'
      void hold()
    },
    settled: () => void keep(),
  })
  const { line, trouble } = doc

  async function keepNow() {
    const now = line.value
    const by = keeps?.()
    if (!by || !now || doc.pending.value || state.value === 'saved') return
    state.value = 'saving'
    try {
      const { kept, theirs } = await by.save(now)
      const whole = !theirs || mergeLines(now, line.value!, lineBody(kept))
      if (!whole)
        by.rewind() // what was done since touches the same: the next save asks
      else if (theirs)
        doc.run({
          name: 'what was changed elsewhere',
          apply: (l) => mergeLines(now, l, lineBody(kept)) ?? l,
        })
      if (!theirs && line.value === now) state.value = 'saved'
      else void keep()
    } catch (e) {
      unsaved(e instanceof Error ? e.message : String(e))
      if (e instanceof Refused && e.status === 0) setTimeout(() => state.value === 'unsaved' && void keepNow(), 2000)
    }
  }
  const keep = useDebounceFn(keepNow, 500)
  watch(doc.cut, (cut) => keeps && cut && unsaved(trouble.value))
  watch(
    () => doc.pending.value === 0 && state.value === 'unsaved' && !doc.cut.value,
    (again) => again && void keep(),
  )
  watch(trouble, (t) => t && setTimeout(() => trouble.value === t && (trouble.value = ''), 12000))
  // A command that was refused leaves the line as it was kept.
  watch(
    () => doc.pending.value,
    (n) => !n && state.value === 'saving' && void keep(),
  )

  return {
    ...doc,
    state,
    refuse: (e: unknown) => (trouble.value = e instanceof Error ? e.message : String(e)),
    change: (part: Partial<LineBody>) =>
      doc.run(change(words[Object.keys(part)[0] as keyof LineBody] ?? 'change', part)),
    /** Keeps what is not kept yet, before the place is left. */
    flush: () => {
      if (state.value !== 'saved' && line.value) keeps?.()?.saveLast(line.value)
    },
    canUndo: computed(() => doc.canUndo.value),
    canRedo: computed(() => doc.canRedo.value),
  }
}
export type LineState = ReturnType<typeof useLine>
