/* Who plays here: each player has an instrument and a log; charts, licks and lines are everybody's. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { answer, api } from './client'
import { readHere } from './here'

export const usePlayers = () => useQuery({ queryKey: ['players'], queryFn: () => answer(api.GET('/api/players')) })

/** What is done to players. What is practised from then on is the other one's, and whatever is shown is asked for anew, since
 * another instrument may be in hand. */
export function usePlayerChanges() {
  const queries = useQueryClient()
  const onSuccess = async () => {
    await readHere()
    await queries.invalidateQueries()
  }
  return {
    add: useMutation({ mutationFn: (name: string) => answer(api.POST('/api/players', { body: { name } })), onSuccess }),
    rename: useMutation({
      mutationFn: ({ id, name }: { id: number; name: string }) =>
        answer(api.PUT('/api/players/{id}', { params: { path: { id } }, body: { name } })),
      onSuccess,
    }),
    remove: useMutation({
      mutationFn: (id: number) => answer(api.DELETE('/api/players/{id}', { params: { path: { id } } })),
      onSuccess,
    }),
    restore: useMutation({
      mutationFn: (id: number) => answer(api.POST('/api/players/{id}/restore', { params: { path: { id } } })),
      onSuccess,
    }),
    turn: useMutation({
      mutationFn: (id: number) => answer(api.PUT('/api/players/{id}/here', { params: { path: { id } } })),
      onSuccess,
    }),
  }
}
