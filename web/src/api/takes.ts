/* Takes: what was played and kept. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api, fetchOf, type Holding, type LineBody, type TakeBody } from './client'
import { useList } from './pages'
import { useRemoving } from './removing'

export const useTakes = () => useList('takes', (query) => api.GET('/api/takes', { params: { query } }))

export const readTake = (id: number) => answer(api.GET('/api/takes/{id}', { params: { path: { id } } }))

/** A take as it sounded: a WAV, kept beside what was heard in it. */
export async function keepSound(id: number, wav: ArrayBuffer | undefined) {
  if (!wav) return
  const response = await fetchOf(`/api/takes/${id}/sound`, {
    method: 'PUT',
    headers: { 'Content-Type': 'audio/wav' },
    body: wav,
  })
  if (!response.ok) throw new Error('The take is kept, but not as it sounded: it is too long, or there is no room.')
}
export const readSound = (id: number) => fetchOf(`/api/takes/${id}/sound`).then((r) => r.arrayBuffer())

/** Takes that are looked at beside each other. */
export const useTheTakes = (ids: Ref<number[]>) =>
  useQuery({
    queryKey: ['takes', ids],
    queryFn: () => Promise.all(ids.value.map(readTake)),
    enabled: computed(() => ids.value.length > 0),
  })

/** What a way to practise is played over, for a chart's chords. */
export const useGround = (
  over: Ref<LineBody | undefined>,
  ask: Ref<{ mode: string; with?: number; seed?: number; chord?: string; easy?: boolean } | undefined>,
) =>
  useQuery({
    queryKey: ['practice over', over, ask],
    queryFn: () => answer(api.POST('/api/practice/over', { body: { over: over.value!, ...ask.value! } })),
    enabled: computed(() => !!over.value && !!ask.value),
    staleTime: Infinity,
  })

/** The limits that can be held to over some chords, and those of a pass. */
export const useHolds = (ask: Ref<{ over: LineBody; mode: string; pass: number; hold: Holding } | undefined>) =>
  useQuery({
    queryKey: ['holds', ask],
    queryFn: () => answer(api.POST('/api/practice/holds', { body: ask.value! })),
    enabled: computed(() => !!ask.value),
    staleTime: Infinity,
    placeholderData: (before) => before,
  })

export function useTakeChanges() {
  const queries = useQueryClient()
  return {
    create: useMutation({
      mutationFn: (body: TakeBody) => answer(api.POST('/api/takes', { body })),
      onSuccess: () => queries.invalidateQueries({ queryKey: ['takes'] }),
    }),
    /** What was played becomes a line of its own. */
    async asLine(body: LineBody) {
      const line = await answer(api.POST('/api/lines', { body }))
      await queries.invalidateQueries({ queryKey: ['lines'] })
      return line
    },
    remove: useRemoving(
      ['takes'],
      (id, ifMatch) =>
        answer(api.DELETE('/api/takes/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } } })),
      (id) => answer(api.POST('/api/takes/{id}/restore', { params: { path: { id } } })),
    ),
  }
}
