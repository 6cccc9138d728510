/* Recordings: what is kept of them, their files, and what the core makes of what was measured and heard. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { differences, mergeFields } from '../document/merge'
import type { Noticed } from '../recording/listening'
import type { Measured } from '../recording/measure'
import type { Sounded } from '../recording/model'
import { answer, api, fetchOf, type Hearing, type NoteByEar, type Recording, type RecordingBody } from './client'
import { useFound } from './found'
import { useKeeper } from './keeper'
import { type PageQuery, type Sought } from './pages'
import { beside } from './questions'
import { recordingBody } from './recordingBody'
import { useRemoving } from './removing'

const recordings = (query: PageQuery) => api.GET('/api/recordings', { params: { query } })
export const useFoundRecordings = (sought: () => Sought) => useFound('recordings', recordings, sought)

export const useRecording = (id: Ref<number>) =>
  useQuery({
    queryKey: ['recording', id],
    queryFn: () => answer(api.GET('/api/recordings/{id}', { params: { path: { id: id.value } } })),
  })

/** Where the file of a recording is; its hash keeps a browser from taking an older one. */
export const fileOf = (r: Pick<Recording, 'id' | 'hash'>) => `/api/recordings/${r.id}/file?of=${r.hash?.slice(0, 12)}`

export const nothingHeard: Hearing = { cents: 0, beats: 4, anchors: [], first: 0, feel: '', chords: '', markers: [], from: 0, to: 0, low: 0, high: 0, notes: [] } // prettier-ignore

/** The largest file that is taken. */
export const mostBytes = 500 * 2 ** 20

export function useRecordingChanges() {
  const queries = useQueryClient()
  const fresh = () => queries.invalidateQueries({ queryKey: ['recordings'] })
  const create = useMutation({
    mutationFn: (body: RecordingBody) => answer(api.POST('/api/recordings', { body })),
    onSuccess: fresh,
  })
  const remove = (r: { id: number; version: string }) =>
    answer(api.DELETE('/api/recordings/{id}', { params: { path: { id: r.id }, header: { 'If-Match': '*' } } }))
  /** Puts a file beside the database, in place of the one before. */
  async function put(id: number, file: Blob): Promise<Recording> {
    if (file.size > mostBytes) throw new Error(`This file has ${Math.round(file.size / 2 ** 20)} MB; ${mostBytes / 2 ** 20} MB can be taken.`) // prettier-ignore
    if (!file.size) throw new Error('This file is empty.')
    const response = await fetchOf(`/api/recordings/${id}/file`, {
      method: 'PUT',
      body: file,
      headers: { 'Content-Type': file.type || 'application/octet-stream' },
    })
    const said = (await response.json().catch(() => ({}))) as Recording & { detail?: string }
    if (!response.ok) throw new Error(said.detail ?? 'the file could not be kept')
    queries.setQueryData(['recording', id], said)
    await fresh()
    return said
  }
  return {
    fresh,
    create,
    put,
    /** A new recording of a file; one whose file cannot be kept is none. */
    async begin(title: string, file: Blob, hearing: Partial<Hearing> = {}): Promise<Recording> {
      if (file.size > mostBytes || !file.size) await put(0, file)
      const made = await create.mutateAsync({ title: title.slice(0, 120) || 'A recording', seconds: 0, hearing: { ...nothingHeard, ...hearing } }) // prettier-ignore
      try {
        return await put(made.id, file)
      } catch (e) {
        await remove(made).catch(() => undefined)
        await fresh()
        throw e
      }
    },
    keeper: (id: number, title: string) =>
      useKeeper<RecordingBody, Recording>({
        path: `/api/recordings/${id}`,
        title,
        what: `“${title}”`,
        restore: () => answer<Recording>(api.POST('/api/recordings/{id}/restore', { params: { path: { id } } })),
        put: (body, ifMatch, keepalive) =>
          answer(
            api.PUT('/api/recordings/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } }, body, keepalive }), // prettier-ignore
          ),
        part: recordingBody,
        merge: mergeFields,
        differs: differences,
        copy: (body) => create.mutateAsync({ ...body, title: beside(body.title) }),
      }),
    remove: useRemoving(
      ['recordings'],
      (id, ifMatch) =>
        answer(api.DELETE('/api/recordings/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } } })),
      (id) => answer(api.POST('/api/recordings/{id}/restore', { params: { path: { id } } })),
    ),
  }
}

function base64(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return btoa(text)
}
const measuredBody = (m: Measured) => ({
  onsetRate: m.onsetRate,
  onsets: base64(m.onsets),
  low: base64(m.low),
  high: base64(m.high),
  toneRate: m.toneRate,
  tones: base64(m.tones),
  bass: base64(m.bass),
})

/** What was noticed, as the core is told of it. */
const told = (o: Noticed) => ({
  ...('of' in o ? { of: o.of } : {}),
  ...('midi' in o ? { midi: o.midi } : {}),
  ...(o.kind === 'settled' ? { clarity: o.clarity } : {}),
  ...(o.kind === 'salience' ? { candidates: o.candidates, fresh: o.fresh, level: o.level } : {}),
  ...(o.kind === 'sway' ? { width: o.width, rate: o.rate, uneven: o.uneven, low: o.low } : {}),
  seq: o.seq,
  kind: o.kind,
  at: o.at,
})

export const askRecording = {
  pulse: (measured: Measured, beats: number) =>
    answer(api.POST('/api/recordings/pulse', { body: { ...measuredBody(measured), beats } })),
  chords: (measured: Measured, recording: RecordingBody) =>
    answer(api.POST('/api/recordings/chords', { body: { ...measuredBody(measured), recording } })),
  tap: (body: {
    anchors: Hearing['anchors']
    beats: number
    taps?: number[]
    first?: number
    times?: number
    tempo?: number
    until?: number
  }) =>
    // prettier-ignore
    answer(api.POST('/api/recordings/tap', { body })),
  notes: (
    noticed: Noticed[],
    { cents, low, high }: Pick<Hearing, 'cents' | 'low' | 'high'>,
    settled: NoteByEar[],
    sounded?: Sounded[],
    lead = false,
  ) =>
    answer(
      api.POST('/api/recordings/notes', {
        body: { cents, low, high, settled, sounded, lead, noticed: noticed.map(told) },
      }),
    ),
  turn: (noticed: Noticed[], record: NoteByEar[]) =>
    answer(api.POST('/api/recordings/turn', { body: { noticed: noticed.map(told), record } })),
  study: (body: RecordingBody) => answer(api.POST('/api/recordings/study', { body })),
}
