/* What the commands of the table do while a place is in view. One listener serves all; the place opened last is asked first. */
import { onScopeDispose } from 'vue'
import { commands, pressed, type CommandId } from './commands'

/** Whether a key press belongs to a field, menu or open dialog rather than to the place. */
export function isTyping(e: KeyboardEvent): boolean {
  const el = e.target as HTMLElement | null
  return (
    !!el?.closest('input, textarea, select, [contenteditable], [role="listbox"], [role="combobox"], [role="dialog"]') ||
    [...document.body.children].some((b) => b.id !== 'app' && (b.matches(dialog) || b.querySelector(dialog)))
  )
}
/* Those that stop everything hang beside the application: a sheet of ten thousand marks need not be searched for them. */
const dialog = '[role="dialog"]'

/** What a command does. false tells that it cannot be done now: the key is left to others. */
export type Deed = (e: KeyboardEvent) => unknown

interface Bound {
  deed: (key: string) => Deed | undefined
  within?: string
}
const places: Bound[] = []

function listen(e: KeyboardEvent) {
  if (e.defaultPrevented || isTyping(e)) return
  const el = e.target as HTMLElement | null
  // Space and Enter press what has the focus.
  if (
    [' ', 'Enter'].includes(e.key) &&
    el?.closest('button, a, [role=button], [role=slider], [role=switch], [role=tab]')
  )
    return
  const key = pressed(e)
  for (const p of places.toReversed()) {
    if (p.within && !el?.closest(p.within)) continue
    const deed = p.deed(key)
    if (!deed || deed(e) === false) continue
    e.preventDefault()
    return
  }
}

export type Deeds = Partial<Record<CommandId, Deed>>
/** What a key does that is not in the table. */
export type Others = (key: string) => Deed | undefined

/** What each key does. */
export function keymap(deeds: Deeds, others?: Others): Others {
  const keys = new Map<string, Deed>()
  for (const [id, deed] of Object.entries(deeds) as [CommandId, Deed][])
    for (const key of commands[id].keys) keys.set(key, deed)
  return (key) => keys.get(key) ?? others?.(key)
}

/** Binds commands as long as the component lives; within: only while the focus is there. */
export function useCommands(deeds: Deeds, how: { within?: string; others?: Others } = {}) {
  const bound: Bound = { deed: keymap(deeds, how.others), within: how.within }
  if (!places.length) window.addEventListener('keydown', listen)
  places.push(bound)
  onScopeDispose(() => {
    places.splice(places.indexOf(bound), 1)
    if (!places.length) window.removeEventListener('keydown', listen)
  })
}
