/* A chart as it is written: read as it is typed, kept by itself once it can be read, and gone back through. A new one is
   put by in the browser until it is made. */
import { watchDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { Refused, type ChartBody, type Reading } from '../../api/client'
import { chartBody, readText } from '../../api/queries'
import { canonical } from '../../document/canonical'
import type { Keeps } from '../../document/useAutosave'
import { diff } from '../../document/steps'
import { useRecord } from '../../document/useRecord'
import { leftOf, settle, useSlot } from '../../memory/unsent'
import { mended } from '../../sheet/places'

export const blank: ChartBody = { title: '', key: 'C', feel: 'shuffle', tempo: 96, beats: 4, text: '' }

/** Where a chart waits that is not made yet: nothing is kept of it but what the browser puts by. */
const unmade = '/api/charts/new'
function useDrawer() {
  const slot = useSlot(unmade)
  let done = false
  const hold = (body: ChartBody) => {
    if (done) return Promise.resolve(true)
    if (canonical(body) === canonical(blank)) return slot.clear() // nothing of it is written yet, or any more
    return slot.hold({ path: unmade, title: body.title || 'a new chart', version: '', ground: blank }, body)
  }
  const keeps: Keeps<ChartBody> = {
    save: () => Promise.reject(new Error('it is not made yet')),
    saveLast: (body) => void hold(body),
    rewind: () => undefined,
    hold,
    leave: slot.leave,
  }
  /** It is made: nothing of it waits any more, also not as the place is left. */
  const made = () => {
    done = true
    return slot.clear()
  }
  return { keeps, made }
}

/** What the text is made into. */
export interface Rewriting {
  form?: string
  turnaround?: string
  key?: string
  from?: string
  text?: string
}

export function useChart(keeps?: () => Keeps<ChartBody> | undefined) {
  const drawer = useDrawer()
  const reading = ref<Reading>()
  const wrong = ref<Record<string, string>>({})
  const record = useRecord<ChartBody>({
    keeps: keeps ?? (() => drawer.keeps),
    part: chartBody,
    waits: (): boolean | string => !keeps || asking() || obstacle(),
    changed: () => (wrong.value = {}),
  })
  const { body } = record

  /** What is asked of the core: only chords, key and metre. */
  const question = computed(() => {
    const { text, key, beats } = body.value ?? blank
    return JSON.stringify({ text, key, beats })
  })
  let read = ''
  const asking = (): boolean => !!body.value?.text.trim() && read !== question.value
  /** Why the chart cannot be kept as it stands. */
  function obstacle(): string {
    if (!body.value?.text.trim()) return 'it has no chords'
    if (!body.value.title.trim()) return 'it has no title'
    return reading.value?.problems[0]?.message ?? ''
  }
  watchDebounced(question, ask, { debounce: 120, immediate: true })
  async function ask(now: string) {
    const q = JSON.parse(now) as { text: string; key: string; beats: number }
    if (!q.text.trim()) {
      reading.value = undefined
      return
    }
    try {
      const answer = await readText(q)
      if (now !== question.value) return
      reading.value = answer
      wrong.value = {}
    } catch (e) {
      if (now === question.value) wrong.value = fieldsOf(e)
    }
    read = now
    record.settled()
  }

  /** What would become of the text; undefined where that cannot be. */
  async function propose(change: Rewriting) {
    const now = body.value
    if (!now) return undefined
    wrong.value = {}
    try {
      const r = await readText({ text: now.text, key: now.key, beats: now.beats, ...change })
      if (body.value !== now) return undefined // something else was done meanwhile
      if (!r.problems.length) return r
      wrong.value = { text: r.problems[0]!.message }
    } catch (e) {
      wrong.value = fieldsOf(e)
    }
    return undefined
  }

  /** Puts a form, a turnaround, another key or other bars in place of the text. */
  async function rewrite(name: string, change: Rewriting) {
    const r = await propose(change)
    if (r) {
      const now = body.value!
      record.change(name, { key: change.key ?? now.key, beats: change.form ? 4 : now.beats, text: r.text })
      reading.value = r // what is typed is read a little later; this is known
    }
    return !!r
  }

  /** A new chart, or the last that was begun and not made. */
  async function begin() {
    record.open(blank)
    const left = (await leftOf(unmade, '')).at(-1)
    if (!left || body.value !== blank) return
    record.bring(diff(blank, left.mine))
    if (await drawer.keeps.hold(body.value)) await settle([left])
  }

  /** Puts the nearest reading where something cannot be read. */
  function mend(offset: number, length: number, nearest: string) {
    record.change('chords', { text: mended(body.value?.text ?? '', offset, length, nearest) })
  }

  return { ...record, reading, wrong, propose, rewrite, mend, begin, drawer }
}

export function fieldsOf(e: unknown): Record<string, string> {
  if (e instanceof Refused) return Object.keys(e.fields).length ? e.fields : { all: e.message }
  return { all: String(e) }
}
