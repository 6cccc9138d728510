/* Deletes what is kept, with a way back; what was changed elsewhere meanwhile is asked about. */
import { useQueryClient } from '@tanstack/vue-query'
import { thingOf } from '../memory/unsent'
import { useUndo } from '../shell/useUndo'
import { Changed } from './client'
import { tag } from './keeper'
import { askPlayer } from './questions'

export function useRemoving(
  lists: string[],
  send: (id: number, ifMatch: string) => Promise<unknown>,
  restore: (id: number) => Promise<unknown>,
) {
  const queries = useQueryClient()
  const undo = useUndo()
  const fresh = () => Promise.all(lists.map((list) => queries.invalidateQueries({ queryKey: [list] })))
  return async (thing: { id: number; title: string; version: string }) => {
    try {
      await send(thing.id, tag(thing.version))
    } catch (e) {
      if (!(e instanceof Changed)) throw e
      const there = e.current as { version: string }
      if (thingOf(there.version) !== thingOf(thing.version)) throw e // it is another thing by now
      if ((await askPlayer({ kind: 'changed', what: `“${thing.title}”, which you delete,` })) === 'theirs') return
      await send(thing.id, tag(there.version))
    }
    await fresh()
    undo(thing.title, () => restore(thing.id).then(fresh))
  }
}
