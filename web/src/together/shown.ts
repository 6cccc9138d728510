/* What the place in view asks for in large letters, if anything: told to those that follow. */
import { onScopeDispose, shallowReactive } from 'vue'
import type { Shown } from './lead'

const asked: (() => Shown | undefined)[] = shallowReactive([])
export function useShown(what: () => Shown | undefined) {
  asked.push(what)
  onScopeDispose(() => asked.splice(asked.indexOf(what), 1))
}
export const shown = () => asked.at(-1)?.()
