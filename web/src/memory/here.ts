/* Which database is open, and whose turn it is: what is remembered is of both. Every answer of the server says the first
   (see client.ts); the second is asked for. */
import { reactive } from 'vue'
import { all, keep } from './browser'

export const here = reactive({ database: '', player: 0, /** how often another database came */ turned: 0 })

/** The last that was known, for a page that opens while nothing answers. */
export async function recall() {
  const last = (await all('settings')).find((s) => s.database === '' && s.name === 'here')?.value
  const known = last as { database?: string; player?: number } | undefined
  if (!here.database) here.database = known?.database ?? ''
  if (!here.player) here.player = known?.player ?? 0
}

/** An answer says which database gave it. true where it is another than before. */
export function answeredBy(database: string | null): boolean {
  if (!database || database === here.database) return false
  const another = here.database !== ''
  here.database = database
  if (another) {
    here.turned++
    here.player = 0
  }
  return another
}

let kept = ''
/** Whose turn it is. */
export function playedBy(player: number) {
  const known = `${here.database} ${player}`
  if (known === kept) return
  kept = known
  here.player = player
  const value = { database: here.database, player }
  void keep({ put: { settings: [{ database: '', player: 0, name: 'here', value }] } })
}
