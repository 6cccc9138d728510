/* Work that is not confirmed: it waits in a slot of its tab, and whoever opens the thing next takes up what tabs that are
   gone have left. What was made in another database, or with another thing of the same number, is never taken up: it is
   offered. */
import { shallowRef } from 'vue'
import { canonical } from '../document/canonical'
import { apply, diff, readable, stepsVersion, type Change, type Step } from '../document/steps'
import { all, exchange, keep, stepsIn, type Slot, type StoredStep } from './browser'
import { here } from './here'
import { living, thisTab } from './tabs'

/** The thing that a tag is of: its database and what it was born with. */
export const thingOf = (version: string) => version.split('.').slice(0, 2).join('.')

/** The database that a tag is of; what is not made yet is of the one that is open. */
const databaseOf = (version: string) => version.split('.')[0] || here.database

export interface Waits {
  path: string
  title: string
  /** the tag it is made on */
  version: string
  ground?: object
  beside?: unknown
}

/** The slots that something in this tab writes. */
const inHand = new Set<string>()
let opened = 0
const slotId = (path: string) => `${thisTab} ${++opened} ${path}`
/** Whether nobody has a slot in hand any more. */
const isLeft = (s: Slot, alive: Set<string>) => (s.tab === thisTab ? !inHand.has(s.id) : !alive.has(s.tab))

const called = 'what was not kept yet'

/** Where a thing's work waits as long as it is in hand here. */
export function useSlot(path: string) {
  const id = slotId(path)
  let slot: Slot | undefined
  let n = 0
  let latest: object | undefined
  let written = false

  const step = (changes: Change[]): StoredStep => ({
    slot: id,
    n: n++,
    step: { v: stepsVersion, name: called, changes },
  })
  /** Writes the slot as it stands, with one step that leads from its ground to the latest. */
  async function write() {
    const now = slot!
    n = 0
    now.sent = []
    now.body = latest!
    const steps = now.ground ? [step(diff(now.ground, latest!))] : []
    written = false
    const sure = await keep({ put: { slots: [{ ...now }], steps }, clear: [id] })
    if (slot === now) written = sure
    return sure
  }

  /** It is there, or somewhere else, or the player let it go. */
  function clear() {
    if (!slot) return Promise.resolve(true)
    slot = latest = undefined
    inHand.delete(id)
    return keep({ drop: { slots: [id] }, clear: [id] })
  }

  return {
    /** Puts a state by, and what was done since the one before; true once it is sure. The transaction begins at once. */
    hold(w: Waits, body: object): Promise<boolean> {
      const before = latest
      latest = body
      if (!slot) {
        const { player } = here
        slot = { ...w, id, tab: thisTab, database: databaseOf(w.version), player, body, sent: [], at: Date.now() }
        inHand.add(id)
        return write()
      }
      slot.at = Date.now()
      // What could not be written before, and what has no ground to go on from, is written whole.
      if (!written || !slot.ground || !before) return write()
      const changes = diff(before, body)
      if (!changes.length) return Promise.resolve(true)
      return keep({ put: { steps: [step(changes)] } }).then((sure) => {
        written &&= sure // one that is missing makes those behind it worthless: the next is written whole
        return sure
      })
    },
    /** The latest is being sent. */
    sending() {
      if (!slot) return
      slot.body = latest!
      slot.sent = [...slot.sent.slice(-4), n]
      void keep({ put: { slots: [{ ...slot }] } })
    },
    /** What was sent is there, as it was kept; what was done since waits on. */
    confirmed(w: Waits, sent: object, kept: object, goesOn: boolean) {
      if (!slot || !latest) return
      if (canonical(latest) === canonical(sent)) return void clear()
      if (!goesOn) return // it was made on something else: it stays on that
      latest = apply(diff(sent, latest), kept)
      slot = { ...slot, version: w.version, database: databaseOf(w.version), ground: kept, sent: [], at: Date.now() }
      void write()
    },
    clear,
    /** It is no longer in hand here; what waits is left to whoever opens the thing next. */
    leave() {
      if (inHand.delete(id)) void look()
    },
  }
}

/** For what does not wait. */
export const noSlot: ReturnType<typeof useSlot> = {
  hold: () => Promise.resolve(true),
  sending: () => undefined,
  confirmed: () => undefined,
  clear: () => Promise.resolve(true),
  leave: () => undefined,
}

/** Work that was left, as it can be done again: to what, and what. */
export interface Left {
  slot: Slot
  ground: object
  mine: object
  steps: Step[]
}

function readSlot(slot: Slot, stored: StoredStep[]): Left | undefined {
  const steps = stored.map((s) => s.step)
  if (!slot.ground || !steps.every(readable)) return undefined
  if (!steps.length) steps.push({ v: stepsVersion, name: called, changes: diff(slot.ground, slot.body) })
  const mine = steps.reduce((b, s) => apply(s.changes, b), slot.ground)
  return { slot, ground: slot.ground, mine, steps }
}

/** Whether work was made with this very thing. */
const isOf = (slot: Slot, path: string, version: string) =>
  slot.path === path && thingOf(slot.version) === thingOf(version) && (!!version || slot.database === here.database)

/** Takes up what tabs that are gone have left of a thing, oldest first. It stays where it is until `settle` is called. */
export async function leftOf(path: string, version: string) {
  const alive = await living()
  const slots = (await all('slots'))
    .filter((s) => isOf(s, path, version) && isLeft(s, alive))
    .sort((a, b) => a.at - b.at)
  const left: Left[] = []
  for (const slot of slots) {
    const read = readSlot(slot, await stepsIn(slot.id))
    if (read) left.push(read)
  }
  return left
}

/** What was done after what the server has: where it has just what was sent, what followed; else all of it. */
export function sinceSent(left: Left, there: object): Left {
  for (const n of left.slot.sent.toReversed()) {
    const sent = left.steps.slice(0, n).reduce((b, s) => apply(s.changes, b), left.ground)
    if (canonical(sent) === canonical(there)) return { ...left, ground: sent, steps: left.steps.slice(n) }
  }
  return left
}

/** Takes what was left out of its slots, in one go; false where another tab was quicker with some of it, which is then as
 * it was. Whoever takes it has put it by before. */
export async function settle(left: Left[]) {
  const ids = left.map((l) => l.slot.id)
  let mine = false
  await exchange(
    (slots) => slots.filter((s) => ids.includes(s.id)).map((s) => s.id),
    (taken) => {
      mine = taken.length === ids.length
      return mine ? { drop: { slots: ids }, clear: ids } : {}
    },
  )
  return mine
}

/** Work that no tab has in hand, wherever it was made. */
export interface Offer {
  slot: Slot
  mine: object
  /** what it was made on, where that is known */
  ground?: object
}
export const offers = shallowRef<Offer[]>([])
/** Looks again what there is. */
export async function look() {
  const alive = await living()
  const list: Offer[] = []
  for (const slot of (await all('slots')).filter((s) => isLeft(s, alive)).sort((a, b) => a.at - b.at)) {
    const read = readSlot(slot, await stepsIn(slot.id))
    list.push({ slot, mine: read?.mine ?? slot.body, ground: read?.ground })
  }
  offers.value = list
}

/** Lets work go, once it is somewhere else or not wanted. */
export async function letGo(id: string) {
  await keep({ drop: { slots: [id] }, clear: [id] })
  await look()
}
