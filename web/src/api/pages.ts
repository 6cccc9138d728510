/* Lists come in pages; what is chosen from wants them all, and the first at once. A shelf asks for what it shows (found.ts). */
import { useQuery, type QueryFunctionContext } from '@tanstack/vue-query'
import { answer } from './client'

interface Answered<R> {
  data?: R[]
  error?: unknown
  response: Response
}

/** What of a list is sought; nothing is all of it. */
export interface Sought {
  find?: string
  tag?: string
  order?: '' | 'easiest' | 'hardest' | 'begins'
}

export type PageQuery = { offset: number; limit: number } & Sought
export type Page<R> = (query: PageQuery) => Promise<Answered<R>>

export const totalOf = (r: Response) => Number(r.headers.get('Total-Count') ?? 0)

/** So many rows fill a screen; the others come in larger pages behind them. */
const first = 100
const further = 1000

/** A list as it is kept up in the browser. Its rows are taken as they are: of thousands none is watched by itself. */
export const useList = <R>(name: string, page: Page<R>) =>
  useQuery({ queryKey: [name], queryFn: (q) => everyRow(page, q), shallow: true })

/** Every row of a list, page after page. Where there was none yet, the first page is there before the others. */
export async function everyRow<R>(
  page: Page<R>,
  { client, queryKey }: Pick<QueryFunctionContext, 'client' | 'queryKey'>,
) {
  const rows: R[] = []
  for (;;) {
    let total = 0
    const got = await answer<R[]>(
      page({ offset: rows.length, limit: rows.length ? further : first }).then((r) => {
        total = totalOf(r.response)
        return r
      }),
    )
    rows.push(...got)
    if (!got.length || rows.length >= total) return rows
    if (client.getQueryData(queryKey)) continue
    client.setQueryData(queryKey, [...rows])
    await new Promise((r) => setTimeout(r, 100)) // what was found is drawn first
  }
}
