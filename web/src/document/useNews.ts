/* Tabs of one browser tell each other what they have kept. */
import { watch, type Ref } from 'vue'
import { useBroadcastChannel } from '@vueuse/core'

interface News {
  path: string
  version: string
}

/** Tells the other tabs when a thing is kept here, and calls fresh when one of them has kept it anew. */
export function useNews(state: Ref<string>, mine: () => News | undefined, fresh: () => void) {
  const channel = useBroadcastChannel<News, News>({ name: 'undaris-kept' })
  watch(state, (s) => {
    const now = mine()
    if (s === 'saved' && now?.version) channel.post(now)
  })
  watch(channel.data, (heard) => {
    const now = mine()
    if (heard && now && heard.path === now.path && heard.version !== now.version && state.value === 'saved') fresh()
  })
}
