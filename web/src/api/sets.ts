/* Sets: an evening's charts in their order. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { differences, mergeFields } from '../document/merge'
import { answer, api, type PlayedSet, type SetBody } from './client'
import { useKeeper } from './keeper'
import { beside } from './questions'
import { useFound } from './found'
import { useList, type PageQuery, type Sought } from './pages'
import { useRemoving } from './removing'

const sets = (query: PageQuery) => api.GET('/api/sets', { params: { query } })
export const useSets = () => useList('sets', sets)
export const useFoundSets = (sought: () => Sought) => useFound('sets', sets, sought)

export const useSet = (id: Ref<number>) =>
  useQuery({
    queryKey: ['set', id],
    queryFn: () => answer(api.GET('/api/sets/{id}', { params: { path: { id: id.value } } })),
  })

/** Of what is kept, the part that is edited. */
export const setBody = ({ title, items }: SetBody): SetBody => ({ title, items })

export function useSetChanges() {
  const queries = useQueryClient()
  const fresh = () => queries.invalidateQueries({ queryKey: ['sets'] })
  const create = useMutation({
    mutationFn: (body: SetBody) => answer(api.POST('/api/sets', { body })),
    onSuccess: fresh,
  })
  return {
    fresh,
    create,
    keeper: (id: number, title: string) =>
      useKeeper<SetBody, PlayedSet>({
        path: `/api/sets/${id}`,
        title,
        what: `“${title}”`,
        restore: () => answer<PlayedSet>(api.POST('/api/sets/{id}/restore', { params: { path: { id } } })),
        put: (body, ifMatch, keepalive) =>
          answer(
            api.PUT('/api/sets/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } }, body, keepalive }),
          ),
        part: setBody,
        merge: mergeFields,
        differs: differences,
        copy: (body) => create.mutateAsync({ ...body, title: beside(body.title) }),
      }),
    remove: useRemoving(
      ['sets'],
      (id, ifMatch) =>
        answer(api.DELETE('/api/sets/{id}', { params: { path: { id }, header: { 'If-Match': ifMatch } } })),
      (id) => answer(api.POST('/api/sets/{id}/restore', { params: { path: { id } } })),
    ),
  }
}
