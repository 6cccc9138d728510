/* A line in the hand: its document, and how it is kept. */
import { watch } from 'vue'
import { askLine, lineBody } from '../../api/kept'
import type { LineBody } from '../../api/client'
import { change } from '../../document/notes'
import { mergeLines } from '../../document/merge'
import { diff } from '../../document/steps'
import { useAutosave, type Keeps } from '../../document/useAutosave'
import { useDocument } from '../../document/useDocument'

const words: Partial<Record<keyof LineBody, string>> = {
  title: 'title',
  locked: 'lock',
  strings: 'strings',
  palette: 'palette',
  low: 'frets',
}

export function useLine(keeps?: () => Keeps<LineBody> | undefined) {
  const doc = useDocument(askLine.study, {
    changed: () => saving.changed(),
    settled: () => saving.keep(),
  })
  const { line, trouble } = doc
  const saving = useAutosave<LineBody>({
    body: line,
    keeps,
    waits: () => doc.pending.value > 0,
    trouble,
    join(saved, kept, asked) {
      const theirs = lineBody(kept)
      const whole = mergeLines(saved, line.value!, theirs)
      if (!whole) return false
      const changes = diff(line.value!, whole)
      if (asked) doc.run({ name: 'what was changed elsewhere', apply: (l) => mergeLines(saved, l, theirs) ?? l })
      else doc.join(changes)
      return true
    },
  })
  const { state } = saving
  watch(doc.cut, (cut) => keeps && cut && saving.unsaved(trouble.value))
  watch(
    () => doc.pending.value === 0 && state.value === 'unsaved' && !doc.cut.value,
    (again) => again && saving.keep(),
  )
  // A command that was refused leaves the line as it was kept.
  watch(doc.pending, (n) => !n && state.value === 'saving' && saving.keep())

  return {
    ...doc,
    state,
    flush: saving.flush,
    resume: saving.keep,
    refuse: (e: unknown) => (trouble.value = e instanceof Error ? e.message : String(e)),
    change: (part: Partial<LineBody>) =>
      doc.run(change(words[Object.keys(part)[0] as keyof LineBody] ?? 'change', part)),
  }
}
export type LineState = ReturnType<typeof useLine>
