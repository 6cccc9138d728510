/* Keeping one thing: saves follow each other, each on the version the one before made. What the server has not confirmed
   waits in the browser and is sent when it can be; what was changed elsewhere is never overwritten unasked, and what is
   another thing by now is never written at all. */
import { canonical } from '../document/canonical'
import { apply, diff, renumbered, type Change } from '../document/steps'
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
  let latest: B | undefined // what was asked to be kept last
  /** What became of states that met others: those that were made on them are set over this. */
  const joins: { from: B; to: B }[] = []
  /** What was done since the last of them touches the same: it waits on what it was made on. */
  let stuck = false
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
  /** Goes back to the version before, so that the next save meets what was changed elsewhere once more. */
  function rewind() {
    if (before) at(before)
    before = undefined
  }

  /** Sends a state until it is there, or another in its place. */
  async function send(body: B): Promise<Outcome<T>> {
    if (now && same(body) === base) return { kept: now, how: 'sent' } // it is there already
    try {
      slot.sending()
      const kept = await k.put(body, tag(version), false)
      at(kept)
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
    const part = k.part(there)
    const untouched = same(part) === base // only something beside it was changed
    if (same(part) === same(body)) return take(there, 'sent')
    const joined = !untouched && base && ground ? k.merge?.(ground, body, part) : undefined
    if (joined) {
      at(there)
      return { kept: (await send(joined)).kept, how: 'joined' }
    }
    const asked = { kind: 'changed' as const, what: k.what, differs: k.differs?.(body, part), both: !!k.copy }
    const decision: Decision = untouched ? 'mine' : await ask(asked)
    if (decision === 'both') await k.copy!(body)
    if (decision !== 'mine') return take(there, 'theirs')
    at(there)
    return send(body)
  }
  function take(there: T, how: Outcome<T>['how']): Outcome<T> {
    at(there)
    return { kept: there, how }
  }

  /** It was deleted meanwhile: what was done to it is not lost with it. */
  async function bringBack(body: B, e: Refused): Promise<Outcome<T>> {
    if (!k.restore || !now) throw e
    gone = true
    const decision = await ask({ kind: 'gone', what: k.what, both: !!k.copy })
    if (decision === 'both') await k.copy!(latest ?? body) // with what was done while the question stood open
    if (decision !== 'mine') {
      void slot.clear()
      return { kept: now, how: 'theirs' }
    }
    const there = await k.restore()
    gone = false
    if (thingOf(there.version) !== thingOf(version)) throw elsewhere(k.what)
    if (same(k.part(there)) !== base) return meet(body, there)
    at(there)
    return send(body)
  }

  /** How it went is told, and with it what waits is set over what is there now: not before, so that what is put by
   * meanwhile is made on what its maker knows. */
  function deliver(sent: B, { kept, how }: Outcome<T>) {
    const to = how === 'sent' ? sent : k.part(kept)
    if (how !== 'sent') {
      joins.push({ from: sent, to })
      const next = latest && (same(latest) === same(sent) ? to : k.merge?.(sent, latest, to))
      stuck = !!latest && !next
      if (next) slot.hold(waits(), (latest = next)).catch(() => undefined)
    }
    slot.confirmed(waits(), to, k.part(kept), !stuck)
    if (latest && same(latest) === same(to)) stuck = false
    void settleLeft()
    return { kept, how }
  }
  /** A state as it stands over everything that was joined since it was made. */
  function over(body: B, since: number): B {
    for (const { from, to } of joins.slice(since)) {
      const next = same(body) === same(from) ? to : k.merge?.(from, body, to)
      if (!next) {
        rewind() // it meets it once more, and is asked about
        return body
      }
      body = next
    }
    return body
  }

  /** Saves after what is being saved already. */
  function save(body: B): Promise<Outcome<T>> {
    latest = body
    void slot.hold(waits(), body)
    underWay++
    const since = joins.length
    const done = queue
      .then(() => (body = over(body, since)))
      .then(send)
      .then((o) => deliver(body, o))
      .finally(() => underWay--)
    queue = done.catch(() => undefined) // whatever was refused waits, and is asked about
    return done
  }

  /** Puts by what cannot be saved yet; the transaction begins at once. */
  function hold(body: B) {
    latest = body
    return slot.hold(waits(), body)
  }

  /** Saves as the page is left, without waiting for anything: what does not arrive waits in the browser. */
  function saveLast(body: B) {
    if (gone) return
    latest = body
    void slot.hold(waits(), body)
    const since = joins.length
    const put = () => k.put((body = over(body, since)), tag(version), new Blob([JSON.stringify(body)]).size < lastWords)
    // A save that is under way makes the next version; without one it goes at once, while the page still can.
    const sent = underWay ? queue.then(put) : put()
    queue = sent
      .then((kept) => {
        at(kept)
        deliver(body, { kept, how: 'sent' })
      })
      .catch(() => undefined)
  }

  /** What an earlier visit could not get confirmed, as changes to what is there. Where the same was changed elsewhere, the
   * player decides. */
  async function unsent(): Promise<Change[]> {
    if (!now || !ground) return []
    let whole = ground
    left = []
    for (const l of (await leftOf(k.path, version)).map((l) => sinceSent(l, ground!))) {
      const [was, mine] = [l.ground as B, l.mine as B]
      let joined = same(was) === same(whole) ? mine : k.merge?.(was, mine, whole)
      if (!joined) {
        const asked = { kind: 'left' as const, what: k.what, differs: k.differs?.(mine, whole), both: !!k.copy }
        const decision = await ask(asked)
        if (decision === 'both') await k.copy!(mine)
        if (decision !== 'mine') {
          await settle([l])
          continue
        }
        joined = apply(renumbered(diff(was, mine), whole), whole)
      }
      whole = joined
      left.push(l)
    }
    const changes = diff(ground, whole)
    if (!changes.length) await settleLeft() // all of it is there already
    return changes
  }
  /** Taken up, and not yet put by anew. */
  let left: Left[] = []

  /** What was left has been done again here: from now on it is ours. Where the browser is full it stays where it was until
   * it is confirmed. */
  async function takeUp(body: B) {
    if (await slot.hold(waits(), body)) await settleLeft()
  }
  async function settleLeft() {
    const mine = left
    left = []
    if (mine.length) await settle(mine)
  }

  return { at, rewind, hold, save, saveLast, unsent, takeUp, leave: slot.leave, version: () => version }
}
export type Keeper<B extends object, T extends Versioned> = ReturnType<typeof useKeeper<B, T>>
export { beside }
