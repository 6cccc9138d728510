import { refDebounced, useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { Refused, type Chart, type ChartBody, type Reading } from '../../api/client'
import { readText } from '../../api/queries'

export const blank: ChartBody = { title: '', key: 'C', feel: 'shuffle', tempo: 96, beats: 4, text: '' }

/** What is being typed: kept in the browser until it is saved, read as it is typed, and every step can be undone. */
export function useDraft(id: string) {
  const body = useLocalStorage<ChartBody>(`undaris-draft-${id}`, { ...blank }, { listenToStorageChanges: false })
  /** The chart as it was when the draft was begun. */
  const since = useLocalStorage<Chart | null | undefined>(`undaris-draft-${id}-since`, null, {
    listenToStorageChanges: false,
    serializer: { read: (text) => JSON.parse(text) as Chart | null, write: (c) => JSON.stringify(c ?? null) },
  })
  const past = ref<ChartBody[]>([])
  const reading = ref<Reading>()
  const wrong = ref<Record<string, string>>({})

  const later = refDebounced(
    computed(() => ({ text: body.value.text, key: body.value.key, beats: body.value.beats })),
    120,
  )
  let asked = 0
  watch(
    later,
    async (q) => {
      const mine = ++asked
      if (!q.text.trim()) {
        reading.value = undefined
        return
      }
      try {
        const answer = await readText(q)
        if (mine === asked) {
          reading.value = answer
          wrong.value = {}
        }
      } catch (e) {
        if (mine === asked) wrong.value = fieldsOf(e)
      }
    },
    { immediate: true, deep: true },
  )

  /** Remembers the draft as it is, to come back to. */
  const mark = () => {
    const last = past.value.at(-1)
    if (JSON.stringify(last) !== JSON.stringify(body.value)) past.value = [...past.value.slice(-99), { ...body.value }]
  }
  const undo = () => {
    const before = past.value.pop()
    if (before) body.value = before
  }

  /** Puts a form, a turnaround or another key in place of the text. */
  async function rewrite(change: { form?: string; turnaround?: string; key?: string; from?: string }) {
    mark()
    const { text, key, beats } = body.value
    try {
      const r = await readText({ text, key, beats, ...change })
      if (r.problems.length) reading.value = r
      else body.value = { ...body.value, key: change.key ?? key, beats: change.form ? 4 : beats, text: r.text }
      wrong.value = {}
      return !r.problems.length
    } catch (e) {
      wrong.value = fieldsOf(e)
      return false
    }
  }

  /** Puts the nearest reading where something cannot be read. */
  function mend(offset: number, length: number, nearest: string) {
    mark()
    const letters = [...body.value.text]
    letters.splice(offset, length, nearest === '%' ? ' % ' : nearest)
    body.value = { ...body.value, text: letters.join('') }
  }

  return { body, since, past, reading, wrong, mark, undo, rewrite, mend }
}

export function fieldsOf(e: unknown): Record<string, string> {
  if (e instanceof Refused) return Object.keys(e.fields).length ? e.fields : { all: e.message }
  return { all: String(e) }
}
