/* What this browser remembers, in one place: IndexedDB, or, where the browser gives none, this page alone as long as it is
   open. Everything has its key here; nobody else reaches for the browser's storage. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { ref } from 'vue'
import type { Step } from '../document/steps'

/** A thing with work in it that is not confirmed yet. One tab writes it. */
export interface Slot {
  /** of the tab, and the path */
  id: string
  tab: string
  /** identity of the database it was made in; empty where an older program made it, which did not know */
  database: string
  player: number
  path: string
  title: string
  /** the tag of the version that it was made on, empty where there was none */
  version: string
  /** that version, as far as it is edited */
  ground?: object
  /** the whole, as it was put by last; the steps of the slot go on from the ground */
  body: object
  /** how many steps had been done when it was sent, each time it was */
  sent: number[]
  /** what more is needed to make a new thing of it */
  beside?: unknown
  at: number
}
export interface StoredStep {
  slot: string
  n: number
  step: Step
}
/** A line of the log that is not noted yet. */
export interface Entry {
  ref: string
  database: string
  player: number
  method: 'POST' | 'PUT'
  path: string
  body: Record<string, unknown>
  at: number
}
/** A setting, of one player of one database, or of this browser (both empty). */
export interface Setting {
  database: string
  player: number
  name: string
  value: unknown
}

interface Schema extends DBSchema {
  slots: { key: string; value: Slot }
  steps: { key: [string, number]; value: StoredStep }
  entries: { key: string; value: Entry }
  settings: { key: [string, number, string]; value: Setting }
}
export type Stores = 'slots' | 'steps' | 'entries' | 'settings'
type Held = { [S in Stores]: Schema[S]['value'] }

/** What to do in one transaction. Without bounds a store is emptied of nothing: `from` and `to` are keys. */
export interface Deeds {
  put?: { [S in Stores]?: Held[S][] }
  drop?: { [S in Stores]?: (string | (string | number)[])[] }
  /** all steps of these slots */
  clear?: string[]
}

/** How far the browser can be relied upon. */
export type Trust = 'keeps' | 'keeps nothing' | 'is full'
export const trust = ref<Trust>('keeps')

const keyOf = {
  slots: (v: Slot) => v.id,
  steps: (v: StoredStep) => [v.slot, v.n],
  entries: (v: Entry) => v.ref,
  settings: (v: Setting) => [v.database, v.player, v.name],
}
const stepsOf = (slot: string) => IDBKeyRange.bound([slot, 0], [slot, Infinity])

let db: IDBPDatabase<Schema> | undefined
/** Stands for the database where there is none. */
const pages = new Map<Stores, Map<string, unknown>>()
const pageOf = (store: Stores) => {
  let page = pages.get(store)
  if (!page) pages.set(store, (page = new Map()))
  return page
}

/** Opens what is remembered. It never fails: a browser that keeps nothing is no reason to stop. */
export async function openMemory(name = 'undaris') {
  db?.close()
  db = undefined
  pages.clear()
  trust.value = 'keeps'
  try {
    const opening = openDB<Schema>(name, 1, {
      upgrade(db) {
        db.createObjectStore('slots', { keyPath: 'id' })
        db.createObjectStore('steps', { keyPath: ['slot', 'n'] })
        db.createObjectStore('entries', { keyPath: 'ref' })
        db.createObjectStore('settings', { keyPath: ['database', 'player', 'name'] })
      },
      blocking: () => db?.close(), // a newer program wants to change it
      terminated: () => {
        db = undefined
        trust.value = 'keeps nothing'
      },
    })
    const late = new Promise<undefined>((none) => setTimeout(() => none(undefined), 3000))
    db = await Promise.race([opening, late])
    if (!db) throw new Error('the browser does not answer')
  } catch {
    trust.value = 'keeps nothing'
  }
}

/** Lets go of it, as a page does that is gone. */
export const closeMemory = () => db?.close()

/** Does it in one transaction, which begins at once; true when it is complete, false where the browser keeps nothing. */
export async function keep({ put = {}, drop = {}, clear = [] }: Deeds): Promise<boolean> {
  const stores = [
    ...new Set([...Object.keys(put), ...Object.keys(drop), ...(clear.length ? ['steps'] : [])]),
  ] as Stores[]
  if (!stores.length) return true
  if (!db) {
    for (const slot of clear) for (const k of [...pageOf('steps').keys()]) if ((JSON.parse(k) as string[])[0] === slot) pageOf('steps').delete(k) // prettier-ignore
    for (const s of stores) {
      for (const k of drop[s] ?? []) pageOf(s).delete(JSON.stringify(k))
      for (const v of put[s] ?? []) pageOf(s).set(JSON.stringify(keyOf[s](v as never)), v)
    }
    return false
  }
  let tx
  try {
    tx = db.transaction(stores, 'readwrite')
    const asked = together(tx.done)
    for (const slot of clear) asked.add(tx.objectStore('steps').delete(stepsOf(slot)))
    for (const s of stores) {
      for (const k of drop[s] ?? []) asked.add(tx.objectStore(s).delete(k as never))
      for (const v of put[s] ?? []) asked.add(putIn(tx.objectStore(s), v))
    }
    tx.commit() // at once: it does not wait for the page to hear of each of them
    await asked.done()
    if (trust.value === 'is full') trust.value = 'keeps'
    return true
  } catch (e) {
    // All of it or nothing: what was there before stays.
    try {
      tx?.abort()
    } catch {
      /* it is over already */
    }
    await tx?.done.catch(() => undefined)
    trust.value = e instanceof DOMException && e.name === 'QuotaExceededError' ? 'is full' : 'keeps nothing'
    return false
  }
}

/** What is asked in a transaction; each is looked at, also where an earlier one has already failed. */
function together(first: Promise<unknown>) {
  const list: Promise<unknown>[] = []
  const add = (p: Promise<unknown>) => {
    p.catch(() => undefined)
    list.push(p)
  }
  add(first)
  return { add, done: () => Promise.all(list) }
}

/** Puts a value; of what is watched the copy behind it. */
function putIn(store: { put: (v: never) => Promise<unknown> }, v: unknown) {
  try {
    return store.put(v as never)
  } catch {
    return store.put(JSON.parse(JSON.stringify(v)) as never)
  }
}

export async function all<S extends Stores>(store: S): Promise<Held[S][]> {
  if (!db) return [...pageOf(store).values()] as Held[S][]
  try {
    return (await db.getAll(store)) as Held[S][]
  } catch {
    return []
  }
}

/** The steps of a slot, in their order. */
export async function stepsIn(slot: string): Promise<StoredStep[]> {
  if (!db)
    return ([...pageOf('steps').values()] as StoredStep[]).filter((s) => s.slot === slot).sort((a, b) => a.n - b.n)
  try {
    return await db.getAll('steps', stepsOf(slot))
  } catch {
    return []
  }
}

/** Takes slots out, so that no other tab comes between: what is looked at and what is dropped is one transaction. */
export async function exchange(take: (slots: Slot[]) => string[], by: (taken: Slot[], steps: StoredStep[]) => Deeds) {
  if (!db) {
    const slots = await all('slots')
    const ids = take(slots)
    const steps = (await all('steps')).filter((s) => ids.includes(s.slot))
    await keep(by(slots.filter((s) => ids.includes(s.id)), steps)) // prettier-ignore
    return
  }
  try {
    const tx = db.transaction(['slots', 'steps'], 'readwrite')
    const slots = await tx.objectStore('slots').getAll()
    const ids = take(slots)
    const steps = (await Promise.all(ids.map((id) => tx.objectStore('steps').getAll(stepsOf(id))))).flat()
    const taken = slots.filter((s) => ids.includes(s.id))
    const { drop = {}, clear = [] } = by(taken, steps)
    const asked = together(tx.done)
    for (const slot of clear) asked.add(tx.objectStore('steps').delete(stepsOf(slot)))
    for (const k of drop.slots ?? []) asked.add(tx.objectStore('slots').delete(k as string))
    await asked.done()
  } catch {
    /* it is as it was */
  }
}
