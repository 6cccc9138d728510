/* What the commands of the table do while a place is in view. One listener serves all; the place opened last is asked first. */
import type { MenuItem } from 'primevue/menuitem'
import { computed, onScopeDispose, shallowReactive, type Ref } from 'vue'
import { commands, face, pressed, type CommandId } from './commands'
import { isLetter, keysOf, useKeys } from './keys'

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

/** What a command does; false tells that it cannot be done now, so that its key is left to others. */
export type Do = (e: KeyboardEvent) => unknown
export interface Deed {
  do: Do
  /** Whether it can be done now: its buttons are pale where not, and its key is left to others. */
  can?: () => boolean
  /** What it is called now, where that says more than the table. */
  name?: () => string
}

interface Bound {
  deeds: Partial<Record<CommandId, Deed>>
  byKey: (key: string) => Do | undefined
  within?: string
  first?: boolean
}
const places = shallowReactive<Bound[]>([])

/** The focus was brought to where it is by keys. */
let byKeys = false
const pointed = () => (byKeys = false)

function listen(e: KeyboardEvent) {
  if (e.key === 'Tab') byKeys = true
  if (e.defaultPrevented || isTyping(e)) return
  const el = e.target as HTMLElement | null
  // Space and Enter press what has the focus; but what was clicked is done with, and space is the band's again.
  const takes = el?.closest<HTMLElement>('button, a, [role=button], [role=slider], [role=switch], [role=tab]')
  if (takes && e.key === ' ' && !byKeys) takes.blur()
  else if (takes && [' ', 'Enter'].includes(e.key)) return
  const key = pressed(e)
  for (const p of places.toReversed()) {
    if (p.within && !el?.closest(p.within)) continue
    const deed = p.byKey(key)
    if (!deed || deed(e) === false) continue
    e.preventDefault()
    return
  }
}

export type Deeds = Partial<Record<CommandId, Deed | Do>>
/** What a key does that is not in the table. */
export type Others = (key: string) => Do | undefined

const whole = (deeds: Deeds): Bound['deeds'] =>
  Object.fromEntries(Object.entries(deeds).map(([id, deed]) => [id, typeof deed === 'function' ? { do: deed } : deed]))

/** What each key does. */
export function keymap(deeds: Deeds, others?: Others, focused = false): Others {
  const list = Object.entries(whole(deeds)) as [CommandId, Deed][]
  const own = useKeys()
  return (key) => {
    const deed = list.findLast(([id]) => keysOf(id, own.value, focused).includes(key))?.[1]
    if (deed) return (e) => (deed.can?.() === false ? false : deed.do(e))
    return own.value.letters || focused || !isLetter(key) ? others?.(key) : undefined
  }
}

/** What a button says of itself: what it does, and by which key. */
export function hint(id: CommandId, name: string = commands[id].name): string {
  const [key] = keysOf(id, useKeys().value)
  return key ? `${name} (${face(key)})` : name
}

/** Binds commands as long as the component lives; within: only while the focus is there; first: before any place. */
export function useCommands(deeds: Deeds, how: { within?: string; others?: Others; first?: boolean } = {}) {
  const bound: Bound = { ...how, deeds: whole(deeds), byKey: keymap(deeds, how.others, !!how.within) }
  if (!places.length) {
    window.addEventListener('keydown', listen)
    window.addEventListener('pointerdown', pointed, true)
  }
  const before = how.first ? -1 : places.findIndex((p) => p.first)
  places.splice(before < 0 ? places.length : before, 0, bound)
  onScopeDispose(() => {
    places.splice(places.indexOf(bound), 1)
    if (places.length) return
    window.removeEventListener('keydown', listen)
    window.removeEventListener('pointerdown', pointed, true)
  })
}

/** What the place in view has a command do: of those that have it the one opened last. */
const deedOf = (id: CommandId) => places.findLast((p) => p.deeds[id])?.deeds[id]

/** Does the first of some commands that the place in view has and can do; false where there is none. */
export function perform(ids: readonly CommandId[]): boolean {
  for (const id of ids) {
    const deed = deedOf(id)
    if (!deed || deed.can?.() === false) continue
    return deed.do({} as KeyboardEvent) !== false
  }
  return false
}

/** A command as a button bears it (`v-bind`): what it says of itself, whether it can be pressed, and what that does. */
export const useCommand = (id: CommandId) =>
  computed(() => {
    const deed = deedOf(id)
    return {
      title: hint(id, deed?.name?.()),
      disabled: !deed || deed.can?.() === false,
      onClick: (e: Event) => void deed?.do(e as KeyboardEvent),
    }
  })

/** The same as a line of a menu. */
export function commandItem(id: CommandId, more: MenuItem = {}): MenuItem {
  const deed = deedOf(id)
  return {
    label: deed?.name?.() ?? commands[id].name,
    disabled: !deed || deed.can?.() === false,
    command: () => void deed?.do({} as KeyboardEvent),
    ...more,
  }
}

/** A history, as the buttons and the keys of undo know it. */
export interface Undoable {
  undo: () => unknown
  redo: () => unknown
  canUndo: Ref<boolean>
  canRedo: Ref<boolean>
  undoName: Ref<string>
  redoName: Ref<string>
}
export const throughHistory = (h: Undoable) =>
  ({
    undo: { do: () => void h.undo(), can: () => h.canUndo.value, name: () => `undo ${h.undoName.value}`.trim() },
    redo: { do: () => void h.redo(), can: () => h.canRedo.value, name: () => `redo ${h.redoName.value}`.trim() },
  }) satisfies Deeds
