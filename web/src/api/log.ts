/* The log: what was practised, its maps, and what to practise today. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api, type CallLog, type RungLog, type TakeLog } from './client'

export interface LogFilter {
  chart?: number
  tuning?: string
  weeks?: number
}

export const useLogMaps = (filter: Ref<LogFilter>) =>
  useQuery({
    queryKey: ['log', 'maps', filter],
    queryFn: () => answer(api.GET('/api/log/maps', { params: { query: filter.value } })),
  })
export const useLogLines = (ids: Ref<number[]>) =>
  useQuery({
    queryKey: ['log', 'lines', ids],
    queryFn: () => answer(api.GET('/api/log', { params: { query: { id: ids.value } } })),
    enabled: computed(() => ids.value.length > 0),
  })
export const readToday = (query: {
  minutes: number
  without?: string[]
  by?: string
  chart?: number[]
  seed?: number
}) => answer(api.GET('/api/today', { params: { query } }))

/** Adds to the log. What cannot be logged is lost without a word to the player, who goes on practising. */
export function useLog() {
  const queries = useQueryClient()
  const noted = <T>(row: Promise<T>) =>
    row
      .then((r) => {
        void queries.invalidateQueries({ queryKey: ['log'] })
        return r
      })
      .catch(() => undefined)
  return {
    call: (body: CallLog) => noted(answer(api.POST('/api/log/calls', { body }))),
    take: (body: TakeLog) => noted(answer(api.POST('/api/log/takes', { body }))),
    rung: (body: RungLog) => noted(answer(api.POST('/api/log/rungs', { body }))),
    /** A line of the log has a take behind it that was kept. */
    kept: (id: number, take: number) =>
      noted(answer(api.PUT('/api/log/{id}/take', { params: { path: { id } }, body: { take } }))),
  }
}
