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
    const late = new Promise<never>((_, fail) => setTimeout(() => fail(new Error('no answer')), 3000))
    db = await Promise.race([
      openDB<Schema>(name, 1, {
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
      }),
      late,
    ])
  } catch {
    trust.value = 'keeps nothing'
  }
}

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
  try {
    const tx = db.transaction(stores, 'readwrite')
    const asked: Promise<unknown>[] = []
    if (clear.length) for (const slot of clear) asked.push(tx.objectStore('steps').delete(stepsOf(slot)))
    for (const s of stores) {
      for (const k of drop[s] ?? []) asked.push(tx.objectStore(s).delete(k as never))
      for (const v of put[s] ?? []) asked.push(putIn(tx.objectStore(s), v))
    }
    await Promise.all([...asked, tx.done])
    if (trust.value === 'is full') trust.value = 'keeps'
    return true
  } catch (e) {
    trust.value = e instanceof DOMException && e.name === 'QuotaExceededError' ? 'is full' : 'keeps nothing'
    return false
  }
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

/** Does something with what a store holds, so that no other tab comes between: of what is given the deeds are done in the
 * same transaction. */
export async function exchange(take: (slots: Slot[]) => string[], by: (taken: Slot[], steps: StoredStep[]) => Deeds) {
  if (!db) {
    const slots = await all('slots')
    const ids = take(slots)
    const steps = (await all('steps')).filter((s) => ids.includes(s.slot))
    await keep(by(slots.filter((s) => ids.includes(s.id)), steps)) // prettier-ignore
    return
  }
  const tx = db.transaction(['slots', 'steps'], 'readwrite')
  const slots = await tx.objectStore('slots').getAll()
  const ids = take(slots)
  const steps = (await Promise.all(ids.map((id) => tx.objectStore('steps').getAll(stepsOf(id))))).flat()
  const { put = {}, drop = {}, clear = [] } = by(slots.filter((s) => ids.includes(s.id)), steps) // prettier-ignore
  for (const slot of clear) void tx.objectStore('steps').delete(stepsOf(slot))
  for (const k of drop.slots ?? []) void tx.objectStore('slots').delete(k as string)
  for (const v of put.slots ?? []) void putIn(tx.objectStore('slots'), v)
  for (const v of put.steps ?? []) void putIn(tx.objectStore('steps'), v)
  await tx.done
}
