/* Lists come in pages; a shelf wants them all. */
import { answer } from './client'

interface Answered<R> {
  data?: R[]
  error?: unknown
  response: Response
}

export const pageSize = 500

/** Every row of a list, page after page. */
export async function everyRow<R>(page: (query: { offset: number; limit: number }) => Promise<Answered<R>>) {
  const rows: R[] = []
  for (;;) {
    let total = 0
    const got = await answer<R[]>(
      page({ offset: rows.length, limit: pageSize }).then((r) => {
        total = Number(r.response.headers.get('Total-Count') ?? 0)
        return r
      }),
    )
    rows.push(...got)
    if (!got.length || rows.length >= total) return rows
  }
}
