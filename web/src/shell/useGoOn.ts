/* What was practised last, so that one press goes on with it: to its place, and to the count-in. */
import { useRoute } from 'vue-router'
import { useSetting } from '../memory/settings'

export interface Last {
  title: string
  /** Its address; `play` and `tempo` are put to it. */
  path: string
  tempo: number
}

export function useGoOn() {
  const route = useRoute()
  const kept = useSetting<{ last: Last | null }>('last', { last: null })
  return {
    kept,
    /** The band began to play what is practised here. */
    began: (last: Omit<Last, 'path'>) => void (kept.value.last = { ...last, path: route.fullPath }),
  }
}

/** The address that goes on with it. */
export function onward({ path, tempo }: Last): string {
  const url = new URL(path, 'http://here')
  url.searchParams.set('play', 'yes')
  url.searchParams.set('tempo', String(tempo))
  return url.pathname + url.search
}
