/* What a shelf shows: of a list so much as is looked at, sought and put in order by the program. */
import { keepPreviousData, useInfiniteQuery } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import { plain } from '../music/text'
import { answer } from './client'
import { totalOf, type Page, type Sought } from './pages'

/** So many rows come at once. */
export const together = 100

export type Found<R> = ReturnType<typeof useFound<R>>

/** Rows of a list, by what is sought; more come when they are asked for. */
export function useFound<R>(name: string, page: Page<R>, sought: () => Sought) {
  const asked = computed(() => {
    const { find = '', tag = '', order = '' } = sought()
    return {
      find: plain(find).trim().slice(0, 200) || undefined,
      tag: tag || undefined,
      order: order || undefined,
    }
  })
  const query = useInfiniteQuery({
    queryKey: [name, 'found', asked],
    initialPageParam: 0,
    queryFn: async ({ pageParam }) => {
      let total = 0
      const rows = await answer<R[]>(
        page({ offset: pageParam, limit: together, ...asked.value }).then((r) => {
          total = totalOf(r.response)
          return r
        }),
      )
      return { rows, total, next: pageParam + rows.length }
    },
    getNextPageParam: ({ rows, total, next }) => (rows.length && next < total ? next : undefined),
    placeholderData: keepPreviousData, // what was found stays until what is found now is there
    shallow: true,
  })
  const pages = computed(() => query.data.value?.pages)
  return reactive({
    rows: computed(() => pages.value?.flatMap((p) => p.rows)),
    total: computed(() => pages.value?.at(-1)?.total ?? 0),
    /** nothing is there, whatever is sought */
    empty: computed(() => pages.value?.[0]?.total === 0 && !asked.value.find && !asked.value.tag),
    error: query.error,
    more: () => void (query.hasNextPage.value && !query.isFetching.value && query.fetchNextPage()),
  })
}
