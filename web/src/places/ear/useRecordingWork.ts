/* A recording as it is worked on: what is kept of it, gone back through, and what the core makes of the stretch in hand. */
import { useQuery } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, shallowRef, type Ref } from 'vue'
import type { Hearing, NoteByEar, Recording, RecordingBody } from '../../api/client'
import { recordingBody } from '../../api/recordingBody'
import { askRecording, useRecording, useRecordingChanges } from '../../api/recordings'
import type { Keeps } from '../../document/useAutosave'
import { useOpening } from '../../document/useOpening'
import { useRecord } from '../../document/useRecord'
import { inStretch } from '../../recording/notes'

export function useRecordingWork(id: Ref<number>) {
  const stored = useRecording(id)
  const changes = useRecordingChanges()
  const record = useRecord<RecordingBody>({ keeps: (): Keeps<RecordingBody> | undefined => opening.keeper(), part: recordingBody }) // prettier-ignore
  const opening = useOpening<RecordingBody, Recording>({
    stored,
    keeper: (r) => changes.keeper(r.id, r.title),
    path: (id) => `/api/recordings/${id}`,
    part: recordingBody,
    open: (r) => record.open(recordingBody(r)),
    bring: record.bring,
    body: record.body,
    state: record.state,
    join: record.join,
    resume: record.settled,
  })
  onBeforeUnmount(() => void changes.fresh())
  const body = record.body
  const hearing = computed(() => body.value?.hearing)
  const put = (name: string, change: Partial<Hearing>, joins = false) =>
    body.value && record.change(name, { hearing: { ...body.value.hearing, ...change } }, joins)
  const stretch = computed(() => {
    const h = hearing.value
    return h && h.to > h.from ? { from: h.from, to: h.to } : undefined
  })
  const notes = computed(() => (stretch.value ? inStretch(hearing.value!.notes, stretch.value) : []))
  /** Chords and key that are heard, where nobody has said any: what is made of the stretch stands on them, as on guesses. */
  const guessed = shallowRef<{ text: string; key?: string }>()
  const onGuess = computed(() => !!guessed.value && !body.value?.chart && !hearing.value?.chords)
  /** What the core makes of it: asked anew when anything that it depends on is another. */
  const asked = computed(() => {
    const b = body.value
    if (!b) return undefined
    const { anchors, beats, first, feel, chords, low, high, from, to } = b.hearing
    return { title: b.title, seconds: b.seconds, chart: b.chart, key: b.key || (onGuess.value ? guessed.value?.key : undefined), hearing: { ...b.hearing, anchors, beats, first, feel, chords: onGuess.value ? guessed.value!.text : chords, low, high, from, to, markers: [], notes: notes.value } } // prettier-ignore
  })
  const heard = useQuery({
    queryKey: ['heard', asked],
    queryFn: () => askRecording.study(asked.value!),
    enabled: computed(() => !!asked.value),
    placeholderData: (before) => before,
    gcTime: 60_000,
  })
  return {
    stored,
    record,
    body,
    hearing,
    stretch,
    guessed,
    onGuess,
    notes,
    heard: heard.data,
    failed: heard.error,
    put,
    changes,
    putNotes: (name: string, notes: NoteByEar[], joins = false) => put(name, { notes }, joins),
    version: () => opening.keeper()?.version() ?? '',
  }
}
export type RecordingWork = ReturnType<typeof useRecordingWork>
