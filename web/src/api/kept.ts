/* Licks and lines: what is kept of them, and how it is changed. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import {
  answer,
  api,
  type DrillBody,
  type LickBody,
  type LineBody,
  type Score,
  type Study,
  type WishBody,
} from './client'
import type { Playing } from '../band/audition'
import { useUndo } from '../shell/useUndo'

export const useLicks = () => useQuery({ queryKey: ['licks'], queryFn: () => answer(api.GET('/api/licks')) })
export const useLines = () => useQuery({ queryKey: ['lines'], queryFn: () => answer(api.GET('/api/lines')) })
export const useLick = (id: Ref<number>) =>
  useQuery({
    queryKey: ['licks', id],
    queryFn: () => answer(api.GET('/api/licks/{id}', { params: { path: { id: id.value } } })),
    enabled: computed(() => id.value > 0),
  })

/** Where the tones of a line's chords lie on the player's whole neck. */
export const useTones = (score: Ref<Score | undefined>) => {
  const chords = computed(() => [
    ...new Set(score.value?.measures.flatMap((m) => m.chords.map((c) => c.symbol)).filter((c) => c !== 'N.C.')),
  ])
  return useQuery({
    queryKey: ['tones', chords],
    queryFn: () => answer(api.GET('/api/tones', { params: { query: { chords: chords.value } } })),
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

export function useLineChanges() {
  const change = useFresh('lines')
  const undo = useUndo()
  const restore = change((id: number) => answer(api.POST('/api/lines/{id}/restore', { params: { path: { id } } })))
  const remove = change((id: number) => answer(api.DELETE('/api/lines/{id}', { params: { path: { id } } })))
  return {
    create: change((body: LineBody) => answer(api.POST('/api/lines', { body }))),
    update: change(({ id, body }: { id: number; body: LineBody }) =>
      answer(api.PUT('/api/lines/{id}', { params: { path: { id } }, body })),
    ),
    async remove(line: { id: number; title: string }) {
      await remove.mutateAsync(line.id)
      undo(line.title, () => restore.mutate(line.id))
    },
  }
}

export function useLickChanges() {
  const change = useFresh('licks')
  const undo = useUndo()
  const restore = change((id: number) => answer(api.POST('/api/licks/{id}/restore', { params: { path: { id } } })))
  const remove = change((id: number) => answer(api.DELETE('/api/licks/{id}', { params: { path: { id } } })))
  return {
    create: change((body: LickBody) => answer(api.POST('/api/licks', { body }))),
    update: change(({ id, body }: { id: number; body: LickBody }) =>
      answer(api.PUT('/api/licks/{id}', { params: { path: { id } }, body })),
    ),
    async remove(lick: { id: number; title: string }) {
      await remove.mutateAsync(lick.id)
      undo(lick.title, () => restore.mutate(lick.id))
    },
  }
}

/** The band playing a line, to be heard. */
export const playing = (line: LineBody) => (how: Playing) =>
  answer<ArrayBuffer>(
    api.POST('/api/lines/midi', {
      params: { query: how },
      body: line,
      parseAs: 'arrayBuffer' as const,
    }) as unknown as Promise<{ data?: ArrayBuffer; error?: unknown; response: Response }>,
  )

export const askLine = {
  study: (body: LineBody) => answer(api.POST('/api/lines/study', { body })),
  write: (line: LineBody, wish: WishBody) => answer(api.POST('/api/lines/write', { body: { line, wish } })),
  fit: (line: LineBody, at: number) => answer(api.POST('/api/lines/fit', { body: { line, at } })),
  blend: (line: LineBody, amount: number) => answer(api.POST('/api/lines/blend', { body: { line, amount } })),
  lick: (body: { line: LineBody; lick: number; bar?: number; land?: boolean; follow?: boolean; targets?: string }) =>
    answer(api.POST('/api/lines/lick', { body })),
  move: (line: LineBody, key: string, shape: boolean) =>
    answer(api.POST('/api/lines/move', { body: { line, key, shape } })),
  drill: (line: LineBody, task: DrillBody) => answer(api.POST('/api/lines/drill', { body: { line, task } })),
  keep: (line: LineBody, from: number, to: number, ofKey: boolean) =>
    answer(api.POST('/api/licks/keep', { body: { line, from, to, ofKey } })),
  async import(file: File, chart?: number) {
    const query = new URLSearchParams({ name: file.name, ...(chart ? { chart: String(chart) } : {}) })
    return answer<Study>(
      fetch(`/api/lines/import?${query}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: file,
      }).then(async (response) => {
        const body = (await response.json()) as unknown
        return response.ok ? { data: body as Study, response } : { error: body, response }
      }),
    )
  },
}
