/* Keeping one thing: saves follow each other, each on the version the one before made. What the server has not confirmed
   waits in the browser and is sent when it can be; what was changed elsewhere is never overwritten unasked, and what is
   another thing by now is never written at all. */
import { canonical } from '../document/canonical'
import { apart, diff, type Change } from '../document/steps'
import { leftOf, noSlot, settle, sinceSent, thingOf, useSlot, type Left } from '../memory/unsent'
import { Changed, Refused } from './client'
import { askPlayer, beside, type Decision } from './questions'

/** How a version is written in If-Match. */
export const tag = (version: string) => `"${version}"`

export interface Versioned {
  /** the tag: of its database, of the thing, of the version */
  version: string
}
/** How it went: as it was sent, joined with what was changed elsewhere, or the player took what stood there. */
export interface Outcome<T> {
  kept: T
  how: 'sent' | 'joined' | 'theirs'
}

/** A browser sends at most so much when a page is left. */
const lastWords = 60_000

export interface Keeping<B extends object, T extends Versioned> {
  path: string
  /** what it is called when the player has to decide */
  title: string
  what: string
  put: (body: B, ifMatch: string, keepalive: boolean) => Promise<T>
  /** the part of it that is saved here */
  part: (kept: T) => B
  /** joins two changes of the same state, where they touch different parts */
  merge?: (base: B, mine: B, theirs: B) => B | undefined
  differs?: (mine: B, theirs: B) => string
  /** keeps mine as a thing of its own */
  copy?: (mine: B) => Promise<unknown>
  /** takes back that it was deleted */
  restore?: () => Promise<T>
  /** what more than its body is needed to make it anew elsewhere */
  beside?: (kept: T) => unknown
  ask?: typeof askPlayer
  /** what cannot be kept at once is not kept later either: the player sees it, and presses again */
  atOnce?: boolean
}

/** It is another thing by now; what was done is put by, and offered. */
export class Elsewhere extends Error {}
const elsewhere = (what: string) =>
  new Elsewhere(`${what} is another one by now: a backup was restored, or other data is served here. What you did is kept in this browser, and offered at the top.`) // prettier-ignore

export function useKeeper<B extends object, T extends Versioned>(k: Keeping<B, T>) {
  const slot = k.atOnce ? noSlot : useSlot(k.path)
  let version = ''
  let base = ''
  let now: T | undefined
  let before: T | undefined
  let ground: B | undefined // the state that changes are made on
  let queue: Promise<unknown> = Promise.resolve()
  let underWay = 0
  let last = '' // what was asked to be kept last
  let gone = false
  const same = (b: B) => canonical(b)
  const ask = k.ask ?? askPlayer
  const waits = () => ({ path: k.path, title: k.title, version, ground, beside: now && k.beside?.(now) })

  /** The thing as it was read: further saves change this version. */
  function at(kept: T) {
    before = now
    version = kept.version
    ground = k.part(kept)
    base = same(ground)
    now = kept
  }
  function confirmed(sent: B, kept: T) {
    at(kept)
    slot.confirmed(waits(), sent, ground!)
  }

  async function send(body: B): Promise<Outcome<T>> {
    if (now && same(body) === base) {
      // it is there already
      if (same(body) === last) void slot.clear()
      return { kept: now, how: 'sent' }
    }
    try {
      slot.sending()
      const kept = await k.put(body, tag(version), false)
      confirmed(body, kept)
      return { kept, how: 'sent' }
    } catch (e) {
      if (e instanceof Refused && (e.status === 404 || e.status === 410)) return bringBack(body, e)
      if (!(e instanceof Changed)) throw e
      return meet(body, e.current as T)
    }
  }

  /** Something else stands there than what was read. */
  async function meet(body: B, there: T): Promise<Outcome<T>> {
    if (thingOf(there.version) !== thingOf(version)) throw elsewhere(k.what)
    const untouched = same(k.part(there)) === base // only something beside it was changed
    const already = same(k.part(there)) === same(body)
    const joined = !already && !untouched && base && ground ? k.merge?.(ground, body, k.part(there)) : undefined
    if (joined) {
      at(there)
      if (same(body) === last) {
        last = same(joined)
        void slot.hold(waits(), joined)
      }
      return { kept: (await send(joined)).kept, how: 'joined' }
    }
    const decision: Decision = already
      ? 'theirs'
      : untouched
        ? 'mine'
        : await ask({ kind: 'changed', what: k.what, differs: k.differs?.(body, k.part(there)), both: !!k.copy })
    if (decision === 'both') await k.copy!(body)
    if (decision !== 'mine') {
      at(there)
      if (same(body) === last) void slot.clear()
      return { kept: there, how: already ? 'sent' : 'theirs' }
    }
    at(there)
    return send(body)
  }

  /** It was deleted meanwhile: what was done to it is not lost with it. */
  async function bringBack(body: B, e: Refused): Promise<Outcome<T>> {
    if (!k.restore || !now) throw e
    gone = true
    const decision = await ask({ kind: 'gone', what: k.what, both: !!k.copy })
    if (decision === 'theirs') {
      void slot.clear()
      return { kept: now, how: 'theirs' }
    }
    if (decision === 'both') {
      await k.copy!(body)
      void slot.clear()
      return { kept: now, how: 'theirs' }
    }
    const there = await k.restore()
    gone = false
    if (thingOf(there.version) !== thingOf(version)) throw elsewhere(k.what)
    return same(k.part(there)) === base ? (at(there), send(body)) : meet(body, there)
  }

  /** Saves after what is being saved already. */
  function save(body: B): Promise<Outcome<T>> {
    last = same(body)
    void slot.hold(waits(), body)
    underWay++
    const done = queue.then(() => send(body)).finally(() => underWay--)
    queue = done.catch(() => undefined) // whatever was refused waits, and is asked about
    return done
  }

  /** Goes back to the version before, so that the next save meets what was changed elsewhere once more. */
  const rewind = () => before && at(before)

  /** Puts by what cannot be saved yet; the transaction begins at once. */
  function hold(body: B) {
    last = same(body)
    return slot.hold(waits(), body)
  }

  /** Saves as the page is left, without waiting for anything: what does not arrive waits in the browser. */
  function saveLast(body: B) {
    if (gone) return
    last = same(body)
    void slot.hold(waits(), body)
    const send = () => k.put(body, tag(version), new Blob([JSON.stringify(body)]).size < lastWords)
    // A save that is under way makes the next version; without one it goes at once, while the page still can.
    const sent = underWay ? queue.then(send) : send()
    queue = sent.then((kept) => confirmed(body, kept)).catch(() => undefined)
  }

  /** What an earlier visit could not get confirmed, as changes to what is there. Where the same was changed elsewhere, the
   * player decides. */
  async function unsent(): Promise<Change[]> {
    if (!now || !ground) return []
    const found = (await leftOf(k.path, version)).map((l) => sinceSent(l, ground!))
    const changes: Change[] = []
    const taken: Left[] = []
    for (const l of found) {
      const mine = diff(l.ground, l.mine)
      const theirs = [...diff(l.ground, ground), ...changes]
      if (mine.length && !apart(theirs, mine)) {
        const joined = k.merge?.(l.ground as B, l.mine as B, ground)
        const decision = joined && !changes.length ? 'mine' : await ask({ kind: 'left', what: k.what, differs: k.differs?.(l.mine as B, ground), both: !!k.copy }) // prettier-ignore
        if (decision === 'both') await k.copy!(l.mine as B)
        if (decision !== 'mine') {
          await settle([l])
          continue
        }
        if (joined && !changes.length) {
          changes.push(...diff(ground, joined))
          taken.push(l)
          continue
        }
      }
      changes.push(...mine)
      taken.push(l)
    }
    left = taken
    return changes
  }
  /** Taken up, and not yet put by anew. */
  let left: Left[] = []

  /** What was left has been done again here: from now on it is ours. false where another tab was quicker. */
  async function takeUp(body: B) {
    await slot.hold(waits(), body)
    const mine = left
    left = []
    return settle(mine)
  }

  return { at, rewind, hold, save, saveLast, unsent, takeUp, leave: slot.leave, version: () => version }
}
export type Keeper<B extends object, T extends Versioned> = ReturnType<typeof useKeeper<B, T>>
export { beside }
