/* Licks and lines: what is kept of them, and how it is changed. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import {
  answer,
  api,
  type DrillBody,
  type Lick,
  type LickBody,
  type Line,
  type LineBody,
  type Score,
  type WishBody,
} from './client'
import type { Playing } from '../band/audition'
import { differences, mergeFields, mergeLines } from '../document/merge'
import { without } from '../document/parts'
import { useKeeper } from './keeper'
import { beside } from './questions'
import { useRemoving } from './removing'
import { useFound } from './found'
import { useList, type PageQuery, type Sought } from './pages'

const licks = (query: PageQuery) => api.GET('/api/licks', { params: { query } })
export const useLicks = () => useList('licks', licks)
export const useFoundLicks = (sought: () => Sought) => useFound('licks', licks, sought)
const lines = (query: PageQuery) => api.GET('/api/lines', { params: { query } })
export const useLines = () => useList('lines', lines)
export const useFoundLines = (sought: () => Sought) => useFound('lines', lines, sought)
/** How many licks there are, and which tags they have. */
export const useLickTags = () =>
  useQuery({ queryKey: ['licks', 'tags'], queryFn: () => answer(api.GET('/api/licks/tags')) })
export const useLick = (id: Ref<number>) =>
  useQuery({
    queryKey: ['licks', id],
    queryFn: () => answer(api.GET('/api/licks/{id}', { params: { path: { id: id.value } } })),
    enabled: computed(() => id.value > 0),
  })

/** Where the tones of a line's chords lie on the player's whole neck. */
export const useTones = (score: Ref<Score | undefined>, line: Ref<LineBody | undefined>) => {
  const neck = computed(() => ({ tuning: line.value?.tuning, frets: line.value?.frets, capo: line.value?.capo }))
  const chords = computed(() => [
    ...new Set(score.value?.measures.flatMap((m) => m.chords.map((c) => c.symbol)).filter((c) => c !== 'N.C.')),
  ])
  return useQuery({
    queryKey: ['tones', chords, neck],
    queryFn: () => answer(api.GET('/api/tones', { params: { query: { chords: chords.value, ...neck.value } } })),
    enabled: computed(() => chords.value.length > 0),
    staleTime: Infinity,
    placeholderData: (before) => before,
  })
}

function useFresh(key: string) {
  const queries = useQueryClient()
  return <A, R>(mutationFn: (a: A) => Promise<R>) =>
    useMutation({ mutationFn, onSuccess: () => queries.invalidateQueries({ queryKey: [key] }) })
}

const putLine = (id: number) => (body: LineBody, ifMatch: string, keepalive: boolean) =>
  answer<Line>(
    api.PUT('/api/lines/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } }, body, keepalive }),
  )
const putLick = (id: number) => (body: LickBody, ifMatch: string, keepalive: boolean) =>
  answer<Lick>(
    api.PUT('/api/licks/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } }, body, keepalive }),
  )

/** Of what is kept, the part that a player edits. */
export const lineBody = (line: LineBody): LineBody => without(line, 'id', 'version', 'bars', 'updated')
export const lickBody = (lick: LickBody): LickBody =>
  without(
    lick,
    'id',
    'version',
    'landsOn',
    'beats',
    'text',
    'line',
    'score',
    'problem',
    'updated',
    'levels',
    'leans',
    'under',
    'holds',
    'wide',
  )

export function useLineChanges() {
  const fresh = useFresh('lines')
  const create = fresh((body: LineBody) => answer(api.POST('/api/lines', { body })))
  return {
    create,
    keeper: (id: number, title: string) =>
      useKeeper<LineBody, Line>({
        path: `/api/lines/${id}`,
        title,
        what: `“${title}”`,
        put: putLine(id),
        restore: () => answer<Line>(api.POST('/api/lines/{id}/restore', { params: { path: { id } } })),
        part: lineBody,
        merge: mergeLines,
        differs: differences,
        copy: (body) => create.mutateAsync({ ...body, title: beside(body.title) }),
      }),
    remove: useRemoving(
      ['lines'],
      (id, ifMatch) =>
        answer(api.DELETE('/api/lines/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } } })),
      (id) => answer(api.POST('/api/lines/{id}/restore', { params: { path: { id } } })),
    ),
  }
}

export function useLickChanges() {
  const fresh = useFresh('licks')
  const queries = useQueryClient()
  const lists = () => queries.invalidateQueries({ queryKey: ['licks'] })
  const create = fresh((body: LickBody) => answer(api.POST('/api/licks', { body })))
  return {
    create,
    fresh: lists,
    keeper: (id: number, title: string) =>
      useKeeper<LickBody, Lick>({
        path: `/api/licks/${id}`,
        title,
        what: `“${title}”`,
        put: putLick(id),
        restore: () => answer<Lick>(api.POST('/api/licks/{id}/restore', { params: { path: { id } } })),
        part: lickBody,
        merge: mergeFields,
        differs: differences,
        copy: (body) => create.mutateAsync({ ...body, title: beside(body.title) }),
      }),
    remove: useRemoving(
      ['licks'],
      (id, ifMatch) =>
        answer(api.DELETE('/api/licks/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } } })),
      (id) => answer(api.POST('/api/licks/{id}/restore', { params: { path: { id } } })),
    ),
  }
}

/** The band playing a line, to be heard. */
export const playing =
  (line: LineBody, form: { plain?: boolean; unbent?: boolean } = {}) =>
  (how: Playing) =>
    answer<ArrayBuffer>(
      api.POST('/api/lines/midi', {
        params: { query: { ...how, ...form } },
        body: line,
        parseAs: 'arrayBuffer' as const,
      }) as unknown as Promise<{ data?: ArrayBuffer; error?: unknown; response: Response }>,
    )

export const studyLick = (body: LickBody) => answer(api.POST('/api/licks/study', { body }))
export const readLick = (text: string) => answer(api.POST('/api/licks/read', { body: { text } }))

export const askLine = {
  study: (body: LineBody) => answer(api.POST('/api/lines/study', { body })),
  lay: (body: LineBody) => answer(api.POST('/api/lines/lay', { body })),
  write: (line: LineBody, wish: WishBody) => answer(api.POST('/api/lines/write', { body: { line, wish } })),
  fit: (line: LineBody, at: number) => answer(api.POST('/api/lines/fit', { body: { line, at } })),
  blend: (line: LineBody, amount: number, bends = false) =>
    answer(api.POST('/api/lines/blend', { body: { line, amount, bends } })),
  lick: (body: {
    line: LineBody
    lick: number
    bars?: number[]
    join?: string
    land?: boolean
    follow?: boolean
    shape?: boolean
  }) => answer(api.POST('/api/lines/lick', { body })),
  lead: (line: LineBody, note: number) => answer(api.POST('/api/lines/lead', { body: { line, note } })),
  octaves: (line: LineBody) => answer(api.POST('/api/lines/octaves', { body: { line } })),
  adorn: (line: LineBody, amount: number, seed: number) =>
    answer(api.POST('/api/lines/adorn', { body: { line, amount, seed } })),
  pick: (line: LineBody, picking: string) => answer(api.POST('/api/lines/pick', { body: { line, picking } })),
  move: (line: LineBody, key: string, shape: boolean) =>
    answer(api.POST('/api/lines/move', { body: { line, key, shape } })),
  drill: (line: LineBody, task: DrillBody) => answer(api.POST('/api/lines/drill', { body: { line, task } })),
  keep: (line: LineBody, first: number, last: number, ofKey: boolean) =>
    answer(api.POST('/api/licks/keep', { body: { line, first, last, ofKey } })),
}
