/* Keeping one thing: saves follow each other, each on the version the one before made. What the server has not
   confirmed stays in the browser and is sent when it can be; what was changed elsewhere is never overwritten unasked. */
import { ref } from 'vue'
import { Changed, Refused } from './client'

/** How a version is written in If-Match. */
export const tag = (version: number) => `"${version}"`

export type Decision = 'mine' | 'theirs' | 'both'
export interface Choice {
  what: string
  /** in words, where that can be said */
  differs?: string
  /** mine can be kept beside theirs */
  both?: boolean
  decide: (keep: Decision) => void
}

/** The question that stands open, if any: it is drawn by ConflictDialog. */
export const conflict = ref<Choice>()
export const askPlayer = (what: string, differs?: string, both?: boolean) =>
  new Promise<Decision>((resolve) => {
    conflict.value = {
      what,
      differs,
      both,
      decide: (keep) => {
        conflict.value = undefined
        resolve(keep)
      },
    }
  })

/** What mine is called beside theirs. */
export const beside = (title: string) => `${title.slice(0, 110)} (mine)`

export interface Versioned {
  version: number
}
export interface Outcome<T> {
  kept: T
  /** the player took what was changed elsewhere; mine is gone */
  theirs: boolean
}

/** Two things that say the same are written alike: in any order, and without what is not said. */
export const canonical = (b: unknown) =>
  JSON.stringify(b, (_, v: unknown) => {
    if (v === false || v === 0 || v === '') return undefined
    if (v === null || typeof v !== 'object' || Array.isArray(v)) return v
    return Object.fromEntries(Object.entries(v).sort(([a], [c]) => (a < c ? -1 : 1)))
  })

interface Unsent<B> {
  version: number
  body: B
}

/** Where unconfirmed work waits; a browser that keeps nothing is no reason to stop. */
export function shelf<B>(path: string) {
  const key = `undaris-unsent:${path}`
  return {
    /** Puts it by at once, so that it is there even when the page is closed the next moment; false where the browser
     * keeps nothing, being full or private: then only the page has it. */
    put(u: Unsent<B>) {
      try {
        localStorage.setItem(key, JSON.stringify(u))
        return true
      } catch {
        return false
      }
    },
    get(): Unsent<B> | undefined {
      try {
        return JSON.parse(localStorage.getItem(key) ?? 'null') ?? undefined
      } catch {
        return undefined
      }
    },
    clear() {
      try {
        localStorage.removeItem(key)
      } catch {
        /* nothing was kept */
      }
    },
  }
}

/** A browser sends at most so much when a page is left. */
const lastWords = 60_000

export interface Keeping<B, T extends Versioned> {
  path: string
  /** what it is called when the player has to decide */
  what: string
  put: (body: B, ifMatch: string, keepalive: boolean) => Promise<T>
  /** the part of it that is saved here */
  part: (kept: T) => B
  /** joins two changes of the same state, where they touch different parts */
  merge?: (base: B, mine: B, theirs: B) => B | undefined
  differs?: (mine: B, theirs: B) => string
  /** keeps mine as a thing of its own */
  copy?: (mine: B) => Promise<unknown>
  ask?: typeof askPlayer
}

export function useKeeper<B, T extends Versioned>(k: Keeping<B, T>) {
  const waiting = shelf<B>(k.path)
  let version = 0
  let base = ''
  let now: T | undefined
  let before: T | undefined
  let ground: B | undefined // the state that changes are made on
  let queue: Promise<unknown> = Promise.resolve()
  let underWay = 0
  let last = '' // what was asked to be kept last
  const same = (b: B) => canonical(b)

  /** The thing as it was read: further saves change this version. */
  function at(kept: T) {
    before = now
    version = kept.version
    ground = k.part(kept)
    base = same(ground)
    now = kept
  }

  async function send(body: B): Promise<Outcome<T>> {
    if (now && same(body) === base) {
      // it is there already
      if (same(body) === last) waiting.clear()
      return { kept: now, theirs: false }
    }
    try {
      const kept = await k.put(body, tag(version), false)
      at(kept)
      if (same(body) === last) waiting.clear()
      return { kept, theirs: false }
    } catch (e) {
      if (!(e instanceof Changed)) throw e
      const there = e.current as T
      const untouched = same(k.part(there)) === base // only something beside it was changed
      const already = same(k.part(there)) === same(body)
      const joined = !already && !untouched && base && ground ? k.merge?.(ground, body, k.part(there)) : undefined
      if (joined) {
        at(there)
        if (same(body) === last) last = same(joined)
        return { kept: (await send(joined)).kept, theirs: true }
      }
      const decision: Decision = already
        ? 'theirs'
        : untouched
          ? 'mine'
          : await (k.ask ?? askPlayer)(k.what, k.differs?.(body, k.part(there)), !!k.copy)
      if (decision === 'both') await k.copy!(body)
      if (decision !== 'mine') {
        at(there)
        waiting.clear()
        return { kept: there, theirs: !already }
      }
      at(there)
      return send(body)
    }
  }

  /** Saves after what is being saved already. */
  function save(body: B): Promise<Outcome<T>> {
    last = same(body)
    waiting.put({ version, body })
    underWay++
    const done = queue.then(() => send(body)).finally(() => underWay--)
    queue = done.catch((e: unknown) => {
      if (e instanceof Refused && e.status >= 400 && e.status < 500) waiting.clear() // it will not be taken later either
    })
    return done
  }

  /** Goes back to the version before, so that the next save meets what was changed elsewhere once more. */
  const rewind = () => before && at(before)

  /** Puts by what cannot be saved yet. */
  function hold(body: B) {
    last = same(body)
    return waiting.put({ version, body })
  }

  /** Saves as the page is left, without waiting for anything. */
  function saveLast(body: B) {
    last = same(body)
    waiting.put({ version, body })
    const text = same(body)
    // A save under way makes the next version before this one arrives; those that come later wait for both.
    const sent = k
      .put(body, tag(version + underWay), new Blob([text]).size < lastWords)
      .then((kept) => {
        at(kept)
        if (last === text) waiting.clear()
      })
      .catch(() => undefined)
    queue = Promise.all([queue, sent])
  }

  /** What an earlier visit could not get confirmed, to be saved anew on the version it was made on. */
  function unsent(): B | undefined {
    const u = waiting.get()
    if (!u) return undefined
    if (same(u.body) === base) {
      waiting.clear()
      return undefined
    }
    if (u.version < version) base = '' // made on an older one: what stands there now was changed elsewhere
    if (u.version) version = u.version
    return u.body
  }

  return { at, rewind, hold, save, saveLast, unsent, version: () => version }
}
export type Keeper<B, T extends Versioned> = ReturnType<typeof useKeeper<B, T>>
