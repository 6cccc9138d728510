/* A lick as it is changed: title, tags, what it is over and its notes as text; shown anew by the core after each change. */
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import type { Lick, LickBody } from '../../api/client'
import { lickBody, readLick, studyLick } from '../../api/kept'
import type { Keeps } from '../../document/useAutosave'
import { useRecord } from '../../document/useRecord'

export function useLickWork(keeps: () => Keeps<LickBody> | undefined) {
  /** The lick as the core shows it; it may be a change behind. */
  const shown = shallowRef<Lick>()
  /** The notes as they are typed, and what of them cannot be read. */
  const text = ref('')
  const wrong = ref('')
  let shows: LickBody | undefined
  const record = useRecord<LickBody>({
    keeps,
    part: lickBody,
    waits: (): boolean | string => wrong.value || shows !== record.body.value,
    changed: () => void study(),
  })

  async function study() {
    const now = record.body.value
    if (!now) return
    try {
      const seen = await studyLick(now)
      if (now !== record.body.value) return
      shown.value = seen
      shows = now
      text.value = seen.text ?? ''
      wrong.value = ''
    } catch (e) {
      if (now === record.body.value) wrong.value = e instanceof Error ? e.message : String(e)
    }
    record.settled()
  }

  const read = useDebounceFn(async (typed: string) => {
    try {
      const notes = await readLick(typed)
      if (typed === text.value) record.change('notes', { notes }, true)
    } catch (e) {
      if (typed === text.value) wrong.value = e instanceof Error ? e.message : String(e)
    }
  }, 250)
  /** Writes the notes anew. */
  function write(typed: string) {
    text.value = typed
    void read(typed)
  }

  return {
    ...record,
    /** What is typed and cannot be read is not kept. */
    state: computed(() => (wrong.value ? 'unsaved' : record.state.value)),
    why: computed(() => wrong.value || record.why.value),
    shown,
    text,
    wrong,
    write,
    /** Shows a lick as it is kept. */
    show(lick: Lick) {
      shown.value = lick
      text.value = lick.text ?? ''
      wrong.value = ''
      record.open((shows = lickBody(lick)))
    },
  }
}
