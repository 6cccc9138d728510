/* A document is kept half a second after it was changed. Until that is confirmed it is put by in the browser, and the
   page says which of three it is: saved · being saved · not saved yet, and why. */
import { ref, watch, type Ref } from 'vue'
import { useDebounceFn, useThrottleFn } from '@vueuse/core'
import { Refused } from '../api/client'

/** How a thing is kept: now, or as the page is left. theirs tells that the player took what was changed elsewhere. */
export interface Keeps<B> {
  save: (body: B) => Promise<{ kept: B; theirs: boolean }>
  saveLast: (body: B) => void
  /** the next save meets what was changed elsewhere once more */
  rewind: () => unknown
  /** puts it by in the browser until it is kept; false where the browser keeps nothing */
  hold: (body: B) => boolean
}

export interface Kept<B> {
  body: Ref<B | undefined>
  keeps?: () => Keeps<B> | undefined
  /** It cannot be kept yet: the core is being asked, or it says in words what stands in the way. */
  waits: () => boolean | string
  /** Takes what was changed elsewhere since saved was; false where the same was changed here. */
  join: (saved: B, theirs: B) => boolean
  trouble: Ref<string>
}

export function useAutosave<B>({ body, keeps, waits, join, trouble }: Kept<B>) {
  const state = ref<'saved' | 'saving' | 'unsaved'>('saved')
  /** What in it stands in the way. */
  const why = ref('')
  /** Whether the browser has put by what is not saved. */
  let held = true
  const hold = useThrottleFn(() => body.value && (held = keeps?.()?.hold(body.value) !== false), 150, true)
  function unsaved(why: string) {
    state.value = 'unsaved'
    trouble.value = held
      ? why
      : `${why} This browser keeps nothing meanwhile, being full or private: leave the page open.`
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
      const { kept, theirs } = await by.save(now)
      // Where what was done since touches the same, the next save asks.
      if (theirs && !join(now, kept)) by.rewind()
      if (!theirs && body.value === now) state.value = 'saved'
      else void keep()
    } catch (e) {
      unsaved(e instanceof Error ? e.message : String(e))
      if (e instanceof Refused && e.status === 0) setTimeout(() => state.value === 'unsaved' && void keepNow(), 2000)
    }
  }
  const keep = useDebounceFn(keepNow, 500)
  watch(trouble, (t) => t && setTimeout(() => trouble.value === t && (trouble.value = ''), 12000))

  return {
    state,
    why,
    unsaved,
    keep: () => void keep(),
    /** Something was done. */
    changed() {
      if (!keeps) return
      state.value = 'saving'
      void hold()
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
