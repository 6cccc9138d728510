/* What older programs kept under keys of their own, without saying whose it was: choices go to the player in hand, once;
   unsent work has no identity, so it is offered, never applied, and never dropped. */
import { all, keep, type Setting, type Slot } from './browser'
import { here } from './here'
import { remembered, type Name } from './settings'

const unsent = 'undaris-unsent:'
/** What a setting was called before, and how it was written. */
const before: Partial<Record<Name, string>> = {
  theme: 'undaris-theme',
  ear: 'undaris-ear',
  spoken: 'undaris-spoken',
  ahead: 'undaris-ahead',
  band: 'undaris-band',
  plan: 'undaris-plan',
  rungs: 'undaris-rungs',
  drills: 'undaris-drills',
  regions: 'undaris-regions',
  blank: 'undaris-blank',
  wish: 'undaris-wish',
  exercise: 'undaris-exercise',
}

function shelf(): Storage | undefined {
  try {
    return window.localStorage
  } catch {
    return undefined
  }
}

/** A value as it was written: words and truths stood there bare. */
function read(text: string): unknown {
  try {
    return JSON.parse(text) as unknown
  } catch {
    return text
  }
}

/** Regions of each player's charts were in one: "1 6" is chart 6 of player 1. */
function regionsOf(player: number, all: unknown) {
  const mine = Object.entries((all ?? {}) as object).filter(([k]) => k.startsWith(`${player} `))
  return Object.fromEntries(mine.map(([k, v]) => [k.split(' ')[1], v]))
}

export async function moveOld(local = shelf()) {
  if (!local) return
  const known = new Set((await all('settings')).map((s) => `${s.database} ${s.player} ${s.name}`))
  const settings: Setting[] = []
  const slots: Slot[] = []
  const moved: string[] = []
  for (const [name, key] of Object.entries(before) as [Name, string][]) {
    const text = local.getItem(key)
    if (text === null) continue
    const of =
      remembered[name] === 'browser' ? { database: '', player: 0 } : { database: here.database, player: here.player }
    if (remembered[name] === 'player' && (!of.database || !of.player)) continue // whose it is is not known yet
    const value = name === 'regions' ? regionsOf(here.player, read(text)) : read(text)
    if (!known.has(`${of.database} ${of.player} ${name}`)) settings.push({ ...of, name, value })
    moved.push(key)
  }
  for (let i = 0; i < local.length; i++) {
    const key = local.key(i)!
    if (!key.startsWith(unsent)) continue
    const path = key.slice(unsent.length)
    const { body } = (read(local.getItem(key) ?? '') ?? {}) as { body?: { title?: string } }
    moved.push(key)
    if (!body || typeof body !== 'object') continue
    const title = body.title ?? ''
    slots.push({ id: `old ${path}`, tab: 'old', database: '', player: 0, path, title, version: '', ground: undefined, body, sent: [], at: 0 }) // prettier-ignore
  }
  // Only what is sure to be here goes there.
  if (moved.length && (await keep({ put: { settings, slots } }))) for (const key of moved) local.removeItem(key)
}
