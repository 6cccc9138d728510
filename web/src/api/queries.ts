import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import type { Ref } from 'vue'
import {
  answer,
  api,
  type ChartBody,
  type ChartMap,
  type Place,
  type Plan,
  type Player,
  type ReadingRequest,
} from './client'

export const useCatalogue = () =>
  useQuery({ queryKey: ['catalogue'], queryFn: () => answer(api.GET('/api/catalogue')), staleTime: Infinity })

export const useCharts = () => useQuery({ queryKey: ['charts'], queryFn: () => answer(api.GET('/api/charts')) })

export const usePlayer = () => useQuery({ queryKey: ['player'], queryFn: () => answer(api.GET('/api/player')) })

export interface OwnWindow {
  low: number
  high: number
}

/** Everything about a chart; own adds a window of the player's to the positions. */
export const useChartMap = (id: Ref<number>, own: Ref<OwnWindow | undefined>, enabled: Ref<boolean>) =>
  useQuery({
    queryKey: ['map', id, own],
    queryFn: () =>
      answer<ChartMap>(api.GET('/api/charts/{id}/map', { params: { path: { id: id.value }, query: own.value } })),
    enabled,
    shallow: true,
    placeholderData: (before, query) => (query?.queryKey[1] === id.value ? before : undefined),
  })

export const readText = (body: ReadingRequest) => answer(api.POST('/api/readings', { body }))

/** Changes to what is stored; whatever is drawn from it is fetched anew. */
export function useChartChanges() {
  const queries = useQueryClient()
  const fresh = () =>
    Promise.all([
      queries.invalidateQueries({ queryKey: ['charts'] }),
      queries.invalidateQueries({ queryKey: ['map'] }),
      queries.invalidateQueries({ queryKey: ['chart'] }),
    ])
  const change = <A, R>(mutationFn: (a: A) => Promise<R>) => useMutation({ mutationFn, onSuccess: fresh })
  return {
    create: change((body: ChartBody) => answer(api.POST('/api/charts', { body }))),
    update: change(({ id, body }: { id: number; body: ChartBody }) =>
      answer(api.PUT('/api/charts/{id}', { params: { path: { id } }, body })),
    ),
    plan: change(({ id, plan }: { id: number; plan: Plan }) =>
      answer(api.PUT('/api/charts/{id}/plan', { params: { path: { id } }, body: plan })),
    ),
    remove: change((id: number) => answer(api.DELETE('/api/charts/{id}', { params: { path: { id } } }))),
    restore: change((id: number) => answer(api.POST('/api/charts/{id}/restore', { params: { path: { id } } }))),
  }
}

export function useSavePlayer() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Player) => answer(api.PUT('/api/player', { body })),
    onSuccess: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ['player'] }),
        queries.invalidateQueries({ queryKey: ['map'] }),
      ]),
  })
}

/** What one place on the neck is over each of some chords. */
export const readPlace = (place: Place, chords: string[], player: Player) =>
  answer(
    api.GET('/api/places', {
      params: {
        query: { ...place, chords, tuning: player.tuning, frets: player.frets, scale: player.scale, capo: player.capo },
      },
    }),
  )

export const noteOpened = (id: number) => api.POST('/api/charts/{id}/opened', { params: { path: { id } } })
