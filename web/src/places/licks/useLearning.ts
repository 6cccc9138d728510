/* A lick is learned as a line: in its parts, each on its own rung. The line is made once and found again. */
import { useRouter } from 'vue-router'
import { answer, api, type Lick } from '../../api/client'
import { useLineChanges } from '../../api/kept'
import { useSetting } from '../../memory/settings'

interface Learning {
  line: number
  /** the lick's notes, as they were then */
  notes: string
}

export function useLearning() {
  const learning = useSetting<Record<string, Learning>>('learning', {})
  const lines = useLineChanges()
  const router = useRouter()
  const there = (line: number) =>
    answer(api.GET('/api/lines/{id}', { params: { path: { id: line } } })).then(
      () => true,
      () => false,
    )
  return {
    async learn(lick: Lick) {
      if (!lick.line) return
      const notes = JSON.stringify(lick.notes)
      const known = learning.value[lick.id]
      let line = known?.notes === notes && (await there(known.line)) ? known.line : undefined
      if (!line) {
        line = (await lines.create.mutateAsync({ ...lick.line, title: `${lick.title}, to learn` })).id
        learning.value = { ...learning.value, [lick.id]: { line, notes } }
      }
      await router.push({ name: 'line', params: { id: line }, query: { parts: 'yes' } })
    },
  }
}
