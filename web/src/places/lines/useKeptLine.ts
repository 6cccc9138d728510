/* A kept line in the hand: read, opened with what an earlier visit could not keep, kept by itself, told to other tabs. */
import { useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, watch, type Ref } from 'vue'
import { answer, api, type Line } from '../../api/client'
import { lineBody, useLineChanges } from '../../api/kept'
import { useNews } from '../../document/useNews'
import { useLine } from './useLine'

export function useKeptLine(id: Ref<number>, opened: () => void) {
  const changes = useLineChanges()
  const stored = useQuery({
    queryKey: ['line', id],
    queryFn: () => answer(api.GET('/api/lines/{id}', { params: { path: { id: id.value } } })),
    staleTime: 0,
    gcTime: 0,
    refetchOnMount: 'always',
  })
  let keeper: ReturnType<typeof changes.keeper> | undefined
  const state = useLine(() => keeper)
  let shown = 0
  function show(l: Line) {
    shown = l.id
    keeper = changes.keeper(l.id, l.title)
    keeper.at(l)
    const unsent = keeper.unsent() // of an earlier visit that ended too soon
    void state.open(lineBody(l)).then(() => {
      if (unsent) state.run({ name: 'what was not kept yet', apply: () => unsent })
      opened()
    }, state.refuse)
  }
  watch(stored.data, (l) => l && shown !== l.id && show(l), { immediate: true })
  /* What another tab has kept is shown at once, unless something is being done to it here. */
  useNews(
    state.state,
    () => (keeper ? { path: `/api/lines/${id.value}`, version: keeper.version() } : undefined),
    async () => {
      const now = (await stored.refetch()).data
      if (!now || state.state.value !== 'saved') return
      keeper!.at(now)
      void state.open(lineBody(now))
    },
  )
  useEventListener(document, 'visibilitychange', () => document.visibilityState === 'hidden' && state.flush())
  useEventListener(window, 'pagehide', () => state.flush())
  onBeforeUnmount(() => state.flush())
  return { state, error: stored.error }
}
