/* Which letters can be others, and which are taken. */
import { commands, type CommandId } from './commands'
import { isLetter, keysOf, type OwnKeys } from './keys'

/** What a letter does already where a command is given; a command that is everywhere is asked against all. */
export function takenBy(id: CommandId, key: string, kept: OwnKeys): CommandId | undefined {
  const room = commands[id].room
  const meets = (other: CommandId) => {
    const r = commands[other].room
    return r === room || r === 'everywhere' || room === 'everywhere'
  }
  return (Object.keys(commands) as CommandId[]).find(
    (other) => other !== id && meets(other) && keysOf(other, { ...kept, letters: true }).includes(key),
  )
}

/** Commands that have one letter, which can be another. */
export const changeable = (Object.keys(commands) as CommandId[]).filter((id) => {
  const keys: string[] = commands[id].keys
  return keys.filter(isLetter).length === 1
})
