/* Deletes what is kept, with a way back; what was changed elsewhere meanwhile is asked about. */
import { useQueryClient } from '@tanstack/vue-query'
import { useUndo } from '../shell/useUndo'
import { Changed } from './client'
import { askPlayer, tag } from './keeper'

export function useRemoving(
  lists: string[],
  send: (id: number, ifMatch: string) => Promise<unknown>,
  restore: (id: number) => Promise<unknown>,
) {
  const queries = useQueryClient()
  const undo = useUndo()
  const fresh = () => Promise.all(lists.map((list) => queries.invalidateQueries({ queryKey: [list] })))
  return async (thing: { id: number; title: string; version: number }) => {
    try {
      await send(thing.id, tag(thing.version))
    } catch (e) {
      if (!(e instanceof Changed)) throw e
      if ((await askPlayer(`“${thing.title}”, which you delete,`)) === 'theirs') return
      await send(thing.id, '*')
    }
    await fresh()
    undo(thing.title, () => restore(thing.id).then(fresh))
  }
}
