/* What was practised last, so that one press goes on with it: to its place, and to the count-in. */
import { useSetting } from '../memory/settings'

export interface Last {
  title: string
  /** Its address; `play` and `tempo` are put to it. */
  path: string
  tempo: number
}

export function useGoOn() {
  const kept = useSetting<{ last: Last | null }>('last', { last: null })
  return {
    kept,
    /** The band began to play what is practised at an address. */
    began: (last: Last) => void (kept.value.last = last),
  }
}

/** The address that goes on with it. */
export function onward({ path, tempo }: Last): string {
  const url = new URL(path, 'http://here')
  url.searchParams.set('play', 'yes')
  url.searchParams.set('tempo', String(tempo))
  return url.pathname + url.search
}
