/* What a player has chosen and how far they are: of the player of the database that is open, or of this browser. */
import { computed, effectScope, ref, toRaw, watch, type Ref, type WritableComputedRef } from 'vue'
import { all, keep, type Setting } from './browser'
import { here } from './here'

/** Everything that is remembered, and whose it is. The delay of a microphone and how bright the room is are the browser's;
 * what is practised is the player's. */
export const remembered = {
  theme: 'browser',
  ear: 'browser',
  spoken: 'browser',
  ahead: 'browser',
  prompts: 'browser',
  pedals: 'browser',
  followed: 'browser',
  keys: 'browser',
  band: 'player',
  recordings: 'player',
  heardAs: 'player',
  plan: 'player',
  rungs: 'player',
  parts: 'player',
  learning: 'player',
  drills: 'player',
  regions: 'player',
  positions: 'player',
  blank: 'player',
  wish: 'player',
  exercise: 'player',
  preview: 'player',
  last: 'player',
  callStep: 'player',
  way: 'player',
} as const
export type Name = keyof typeof remembered

const cells = new Map<string, Ref<unknown>>()
const loaded = new Map<string, unknown>()
const scope = effectScope(true)
const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('undaris-settings')

const whose = (name: Name): Pick<Setting, 'database' | 'player'> =>
  remembered[name] === 'browser' ? { database: '', player: 0 } : { database: here.database, player: here.player }
const keyOf = (s: Pick<Setting, 'database' | 'player' | 'name'>) => `${s.database} ${s.player} ${s.name}`

/** Reads everything once, so that what is chosen is there before the first place is drawn. */
export async function readSettings() {
  cells.clear()
  loaded.clear()
  for (const s of await all('settings')) loaded.set(keyOf(s), s.value)
}

channel?.addEventListener('message', (e: MessageEvent<Setting>) => {
  const key = keyOf(e.data)
  loaded.set(key, e.data.value)
  const cell = cells.get(key)
  if (cell && JSON.stringify(cell.value) !== JSON.stringify(e.data.value)) cell.value = e.data.value
})

const isRecord = (v: unknown): v is object => !!v && typeof v === 'object' && !Array.isArray(v)

function cellOf<T>(name: Name, usual: T): Ref<T> {
  const of = { ...whose(name), name }
  const key = keyOf(of)
  let cell = cells.get(key) as Ref<T> | undefined
  if (cell) return cell
  const fresh = structuredClone(usual)
  const known = loaded.get(key) as T | undefined
  const begin = known === undefined ? fresh : isRecord(fresh) && isRecord(known) ? { ...fresh, ...known } : known
  cell = ref(begin) as Ref<T>
  cells.set(key, cell as Ref<unknown>)
  scope.run(() =>
    watch(
      cell!,
      (now) => {
        const value = JSON.parse(JSON.stringify(toRaw(now))) as unknown
        if (JSON.stringify(loaded.get(key)) === JSON.stringify(value)) return // another tab said so
        loaded.set(key, value)
        void keep({ put: { settings: [{ ...of, value }] } })
        channel?.postMessage({ ...of, value })
      },
      { deep: true, flush: 'sync' },
    ),
  )
  return cell
}

/** A setting by its name. It is another when another plays, or another database is open. */
export function useSetting<T>(name: Name, usual: T): WritableComputedRef<T> {
  return computed({ get: () => cellOf(name, usual).value, set: (v) => (cellOf(name, usual).value = v) })
}
