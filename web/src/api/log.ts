/* The log: what was practised, its maps, and what to practise today. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { note, type Sent } from '../memory/entries'
import { useUndo } from '../shell/useUndo'
import type { Entry } from '../memory/browser'
import {
  answer,
  api,
  fetchOf,
  passing,
  Refused,
  type ByEarLog,
  type CallLog,
  type LogRow,
  type RungLog,
  type TakeLog,
} from './client'

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
export const useLogPage = (query: Ref<LogFilter & { limit: number }>) =>
  useQuery({
    queryKey: ['log', 'page', query],
    queryFn: () => answer(api.GET('/api/log', { params: { query: query.value } })),
    placeholderData: (before) => before,
  })
/** Takes a line out of the log; a toast puts it back. */
export function useUnlog() {
  const queries = useQueryClient()
  const undo = useUndo()
  const fresh = () => queries.invalidateQueries({ queryKey: ['log'] })
  return async ({ id, title }: LogRow) => {
    const params = { path: { id } }
    await answer(api.DELETE('/api/log/{id}', { params }))
    void fresh()
    undo(title, async () => {
      await answer(api.POST('/api/log/{id}/restore', { params }))
      void fresh()
    })
  }
}
export const readToday = (query: {
  minutes: number
  without?: string[]
  by?: string
  chart?: number[]
  seed?: number
}) => answer(api.GET('/api/today', { params: { query } }))

/** A time as it is here, so that the day is that of the place where it was. */
export function asHere(at: Date): string {
  const off = -at.getTimezoneOffset()
  const two = (n: number) => `${Math.floor(Math.abs(n))}`.padStart(2, '0')
  const local = new Date(at.getTime() + off * 60_000).toISOString().slice(0, -1)
  return `${local}${off < 0 ? '-' : '+'}${two(off / 60)}:${two(off % 60)}`
}

/** Sends a line of the log that waits; thrown where it is to be sent again. */
export async function sendEntry({ ref, player, method, path, body, at }: Entry): Promise<Sent> {
  const noting = method === 'POST' ? { ref, player, at: asHere(new Date(at)) } : {}
  const init = { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify({ ...body, ...noting }) }
  const asked = fetchOf(path, init).then(async (response) => {
    const text = await response.text()
    const data = (text ? JSON.parse(text) : {}) as LogRow
    return response.ok ? { data, response } : { error: data, response }
  })
  try {
    return { row: await answer<LogRow>(asked) }
  } catch (e) {
    // Refused for what it is, it will not be taken later either.
    if (!passing(e)) return { refused: (e as Refused).message }
    throw e
  }
}

/** Adds to the log. What cannot be noted now waits in the browser; the number of its line comes when it is noted. */
export function useLog() {
  const queries = useQueryClient()
  const noted = (path: string, body: object, method: Entry['method'] = 'POST') =>
    note(method, path, body as Record<string, unknown>).then((row) => {
      void queries.invalidateQueries({ queryKey: ['log'] })
      return row as LogRow | undefined
    })
  return {
    call: (body: CallLog) => noted('/api/log/calls', body),
    take: (body: TakeLog) => noted('/api/log/takes', body),
    byEar: (body: ByEarLog) => noted('/api/log/ears', body),
    rung: (body: RungLog) => noted('/api/log/rungs', body),
    /** A line of the log has a take behind it that was kept. */
    kept: (id: number, take: number) => noted(`/api/log/${id}/take`, { take }, 'PUT'),
  }
}
