/* A kept thing in the hand: read, opened with what an earlier visit could not get kept, and shown as other tabs keep it. One
   for all that is edited. */
import { watch, type Ref } from 'vue'
import type { Keeper, Versioned } from '../api/keeper'
import { thingOf } from '../memory/unsent'
import { apply, diff, type Change } from './steps'
import { useNews } from './useNews'

export interface Opening<B extends object, T extends Versioned & { id: number }> {
  stored: { data: Ref<T | undefined>; refetch: () => Promise<{ data?: T }> }
  keeper: (kept: T) => Keeper<B, T>
  path: (id: number) => string
  part: (kept: T) => B
  /** shows it, with nothing to take back */
  open: (kept: T) => Promise<unknown> | unknown
  /** does changes that are no steps of this visit */
  bring: (changes: Change[]) => void
  /** as it stands here */
  body: Ref<B | undefined>
  state: Ref<string>
  join: (theirs: Change[]) => void
  /** has it kept what is not, where something else stood here before */
  resume?: () => void
}

export function useOpening<B extends object, T extends Versioned & { id: number }>(how: Opening<B, T>) {
  let keeper: Keeper<B, T> | undefined
  let coming: Keeper<B, T> | undefined
  let shown = 0
  async function show(kept: T) {
    shown = kept.id
    // Until it is shown, what stands here is the one before: it is kept as that, and nothing of it as this.
    const before = keeper
    keeper = undefined
    if (before && how.state.value !== 'saved' && how.body.value) before.saveLast(how.body.value)
    before?.leave()
    const mine = (coming = how.keeper(kept))
    mine.at(kept)
    await how.open(kept)
    if (mine !== coming) return
    keeper = mine
    if (how.state.value !== 'saved') how.resume?.()
    const left = await mine.unsent()
    if (mine !== keeper || !how.body.value) return
    if (left.length) {
      const whole = apply(left, how.body.value)
      how.bring(left)
      await mine.takeUp(whole)
    }
  }
  watch(how.stored.data, (t) => t && shown !== t.id && void show(t), { immediate: true })
  /* What another tab has kept is shown at once, unless something is being done to it here. */
  useNews(
    how.state,
    () => (keeper ? { path: how.path(shown), version: keeper.version() } : undefined),
    async () => {
      const asked = keeper!.version()
      const now = (await how.stored.refetch()).data
      if (!now || !how.body.value || how.state.value !== 'saved') return
      if (thingOf(now.version) !== thingOf(keeper!.version())) return // another database is open: the page turns
      if (now.version === keeper!.version()) return // it is what was kept here
      if (asked !== keeper!.version()) return // kept here meanwhile, over what the other tab kept: the answer may be older
      keeper!.at(now)
      how.join(diff(how.body.value, how.part(now)))
    },
  )
  return { keeper: () => keeper }
}
