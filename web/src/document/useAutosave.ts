/* A document is kept half a second after it was changed. Until that is confirmed it is put by in the browser, and the
   page says which of three it is: saved · being saved · not saved yet, and why. */
import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import { passing, Refused } from '../api/client'

/** How a thing is kept: now, or as the page is left. It may come back joined with what was changed elsewhere, or be what the
 * player took in its place. */
export interface Keeps<B> {
  save: (body: B) => Promise<{ kept: B; how: 'sent' | 'joined' | 'theirs' }>
  saveLast: (body: B) => void
  /** the next save meets what was changed elsewhere once more */
  rewind: () => unknown
  /** puts it by in the browser until it is kept; false where the browser keeps nothing */
  hold: (body: B) => Promise<boolean>
  /** it is no longer in hand here */
  leave?: () => void
}

export interface Kept<B> {
  body: Ref<B | undefined>
  keeps?: () => Keeps<B> | undefined
  /** It cannot be kept yet: the core is being asked, or it says in words what stands in the way. */
  waits: () => boolean | string
  /** Shows what has come since saved was; false where the same was changed here meanwhile. asked tells that the player took
   * it in place of theirs, and may take that back. */
  join: (saved: B, kept: B, asked: boolean) => boolean
  trouble: Ref<string>
}

export function useAutosave<B>({ body, keeps, waits, join, trouble }: Kept<B>) {
  const state = ref<'saved' | 'saving' | 'unsaved'>('saved')
  /** What in it stands in the way. */
  const why = ref('')
  let left = false
  function unsaved(why: string) {
    state.value = 'unsaved'
    trouble.value = why
  }
  async function keepNow() {
    const now = body.value
    const by = keeps?.()
    if (!by || !now || state.value === 'saved') return
    const wait = waits()
    why.value = typeof wait === 'string' ? wait : ''
    if (why.value) state.value = 'unsaved'
    if (wait) return
    state.value = 'saving'
    try {
      const { kept, how } = await by.save(now)
      // Where what was done since touches the same, the next save asks.
      if (how !== 'sent' && !join(now, kept, how === 'theirs')) by.rewind()
      if (how === 'sent' && body.value === now) state.value = 'saved'
      else void keep()
    } catch (e) {
      unsaved(e instanceof Error ? e.message : String(e))
      const later = e instanceof Refused && passing(e)
      if (later && !left) setTimeout(() => state.value === 'unsaved' && !left && void keepNow(), 2000)
    }
  }
  const keep = useDebounceFn(keepNow, 500)
  onScopeDispose(() => (left = true))
  watch(trouble, (t) => t && setTimeout(() => trouble.value === t && (trouble.value = ''), 12000))

  return {
    state,
    why,
    unsaved,
    keep: () => void keep(),
    /** Something was done. */
    changed() {
      if (!keeps) return
      // What is not saved yet is so until it is.
      if (state.value === 'saved') state.value = 'saving'
      if (body.value) void keeps()?.hold(body.value)
    },
    /** Keeps what is not kept yet, before the place is left. */
    flush() {
      if (state.value !== 'saved' && body.value) keeps?.()?.saveLast(body.value)
    },
    /** Keeps it now; false where it could not be. */
    async now() {
      await keepNow()
      return state.value === 'saved'
    },
  }
}
export type SaveState = ReturnType<typeof useAutosave>['state']['value']
export const stateWords: Record<SaveState, string> = {
  saved: 'saved',
  saving: 'saving …',
  unsaved: 'not saved yet',
}
