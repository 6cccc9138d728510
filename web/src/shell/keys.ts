/* Keys as a player has them: single letters, figures and signs can be changed or switched off, since who speaks to the machine,
   or rests a hand on the keyboard, would set off what nobody meant (WCAG 2.1.4). */
import { useSetting } from '../memory/settings'
import { commands, type CommandId } from './commands'

export interface OwnKeys {
  /** Single letters, figures and signs do something by themselves. */
  letters: boolean
  /** What was put in the place of a command's letter. */
  own: Partial<Record<CommandId, string>>
}

/** One that is pressed alone and written; the space bar is none. */
export const isLetter = (key: string) => [...key].length === 1 && key !== ' '

/** The keys of a command. Where the focus has to be in one part of the page for it, its letters stay on. */
export function keysOf(id: CommandId, { letters, own }: OwnKeys, focused = false): string[] {
  const usual: string[] = commands[id].keys
  const mine = own[id]
  const all = mine ? [mine, ...usual.filter((k) => !isLetter(k))] : usual
  return letters || focused ? all : all.filter((k) => !isLetter(k))
}

export const useKeys = () => useSetting<OwnKeys>('keys', { letters: true, own: {} })
