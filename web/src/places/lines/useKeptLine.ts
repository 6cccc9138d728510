/* A kept line in the hand: read, opened with what an earlier visit could not keep, kept by itself, told to other tabs. */
import { useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, type Ref } from 'vue'
import { answer, api, type Line, type LineBody } from '../../api/client'
import { lineBody, useLineChanges } from '../../api/kept'
import { useOpening } from '../../document/useOpening'
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
  const state = useLine(() => opening.keeper())
  const opening = useOpening<LineBody, Line>({
    stored,
    keeper: (l) => changes.keeper(l.id, l.title),
    path: (id) => `/api/lines/${id}`,
    part: lineBody,
    open: (l) => state.open(lineBody(l)).then(opened, state.refuse),
    bring: (left) => state.bring('what was not kept yet', left),
    body: state.line,
    state: state.state,
    join: state.join,
    resume: state.resume,
  })
  useEventListener(document, 'visibilitychange', () => document.visibilityState === 'hidden' && state.flush())
  useEventListener(window, 'pagehide', () => state.flush())
  onBeforeUnmount(() => {
    state.flush()
    opening.keeper()?.leave()
  })
  return { state, error: stored.error }
}
