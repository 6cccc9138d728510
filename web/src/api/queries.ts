import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import type { Ref } from 'vue'
import {
  answer,
  api,
  type Chart,
  type ChartBody,
  type ChartMap,
  type Place,
  type Plan,
  type Player,
  type PlayerVersion,
  type ReadingRequest,
} from './client'
import { differences, mergeFields } from '../document/merge'
import { without } from '../document/parts'
import { useKeeper } from './keeper'
import { beside } from './questions'
import { useRemoving } from './removing'
import { useFound } from './found'
import { useList, type PageQuery, type Sought } from './pages'

export const useCatalogue = () =>
  useQuery({ queryKey: ['catalogue'], queryFn: () => answer(api.GET('/api/catalogue')), staleTime: Infinity })

const charts = (query: PageQuery) => api.GET('/api/charts', { params: { query } })
export const useCharts = () => useList('charts', charts)
export const useFoundCharts = (sought: () => Sought) => useFound('charts', charts, sought)

export const readChart = (id: number) => answer(api.GET('/api/charts/{id}', { params: { path: { id } } }))

export const usePlayer = () => useQuery({ queryKey: ['player'], queryFn: () => answer(api.GET('/api/player')) })

/** A region beside the key's positions, or the regions of a way to divide the neck in their place. */
export interface AskedRegions {
  low?: number
  high?: number
  strings?: string
  way?: string
}

/** Everything about a chart, in the key's positions and what is asked for. */
export const useChartMap = (id: Ref<number>, own: Ref<AskedRegions | undefined>, enabled: Ref<boolean>) =>
  useQuery({
    queryKey: ['map', id, own],
    queryFn: () =>
      answer<ChartMap>(api.GET('/api/charts/{id}/map', { params: { path: { id: id.value }, query: own.value } })),
    enabled,
    shallow: true,
    placeholderData: (before, query) => (query?.queryKey[1] === id.value ? before : undefined),
  })

export const readText = (body: ReadingRequest) => answer(api.POST('/api/readings', { body }))

/** Of what is kept, the part that is edited. */
export const chartBody = (chart: ChartBody): ChartBody =>
  without(chart, 'id', 'version', 'plan', 'bars', 'lengths', 'readIn', 'capo', 'feelName', 'updated')

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
  const create = change((body: ChartBody) => answer(api.POST('/api/charts', { body })))
  return {
    fresh,
    create,
    keeper: (id: number, title: string) =>
      useKeeper<ChartBody, Chart>({
        path: `/api/charts/${id}`,
        title,
        what: `“${title}”`,
        restore: () => answer<Chart>(api.POST('/api/charts/{id}/restore', { params: { path: { id } } })),
        put: (body, ifMatch, keepalive) =>
          answer(
            api.PUT('/api/charts/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } }, body, keepalive }),
          ),
        part: chartBody,
        merge: mergeFields,
        differs: differences,
        copy: (body) => create.mutateAsync({ ...body, title: beside(body.title) }),
      }),
    planner: (id: number, title: string) =>
      useKeeper<Plan, Chart>({
        path: `/api/charts/${id}/plan`,
        title,
        what: `what you decided about “${title}”`,
        restore: () => answer<Chart>(api.POST('/api/charts/{id}/restore', { params: { path: { id } } })),
        beside: chartBody,
        put: (body, ifMatch, keepalive) =>
          answer(
            api.PUT('/api/charts/{id}/plan', {
              params: { path: { id }, header: { 'If-Match': ifMatch } },
              body,
              keepalive,
            }),
          ),
        part: (c) => c.plan,
        merge: mergeFields,
        differs: differences,
      }),
    remove: useRemoving(
      ['charts', 'map', 'chart'],
      (id, ifMatch) =>
        answer(api.DELETE('/api/charts/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } } })),
      (id) => answer(api.POST('/api/charts/{id}/restore', { params: { path: { id } } })),
    ),
  }
}

const playerBody = (player: Player): Player => without(player, 'version', 'id', 'name')

export function useSavePlayer() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ was, body }: { was: PlayerVersion; body: Player }) => {
      const keeper = useKeeper<Player, PlayerVersion>({
        path: '/api/player',
        title: 'The instrument',
        atOnce: true,
        what: 'The instrument',
        put: (body, ifMatch, keepalive) =>
          answer(
            api.PUT('/api/player', { params: { header: { 'If-Match': ifMatch } }, body: playerBody(body), keepalive }),
          ),
        part: playerBody,
        merge: mergeFields,
        differs: differences,
      })
      keeper.at(was)
      return keeper.save(playerBody(body))
    },
    onSuccess: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ['player'] }),
        queries.invalidateQueries({ queryKey: ['map'] }),
      ]),
  })
}

/** What one place on the neck is over each of some chords, and whatever sounds. */
export function readPlace(place: Place, chords: string[], key: string, player: Player) {
  const { tuning, frets, scale, capo } = player
  const at = { ...place, tuning, frets, scale, capo }
  return Promise.all([
    answer(api.GET('/api/places', { params: { query: { ...at, chords } } })),
    answer(api.GET('/api/places/about', { params: { query: { ...at, key } } })),
  ])
}

export const noteOpened = (id: number) => api.POST('/api/charts/{id}/opened', { params: { path: { id } } })
