/* What is in view, in a sentence: a place says how, and it is told when it is asked for. */
import { onScopeDispose, shallowReactive } from 'vue'

export interface Sayable {
  /** All of it, on demand. */
  whole: () => string | Promise<string>
  /** What is new of it while the band plays. */
  now?: () => string
}
const places: Sayable[] = shallowReactive([])

export function useSummary(place: Sayable) {
  places.push(place)
  onScopeDispose(() => places.splice(places.indexOf(place), 1))
}

/** Of the place in view. */
export const summary = () => places.at(-1)
