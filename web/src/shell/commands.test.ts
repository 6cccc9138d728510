import { describe, expect, it, vi } from 'vitest'
import { aloud, commands, face, pressed, rooms, type Command, type CommandId } from './commands'
import { keymap, hint } from './useCommands'

const all = Object.entries(commands) as [CommandId, Command][]
const press = (key: string, held = {}) => pressed({ key, shiftKey: false, ctrlKey: false, metaKey: false, altKey: false, ...held }) // prettier-ignore

describe('the table of commands', () => {
  it('gives each key one meaning in each room', () => {
    for (const room of Object.keys(rooms)) {
      const keys = all.filter(([, c]) => c.room === room).flatMap(([, c]) => c.keys)
      expect(new Set(keys).size, room).toBe(keys.length)
    }
  })

  it('writes every key as a press of it reads', () => {
    for (const [id, c] of all)
      for (const key of c.keys) {
        const parts = key.split(/(?<=.)\+/)
        const held = {
          shiftKey: parts.includes('Shift'),
          ctrlKey: parts.includes('Ctrl'),
          altKey: parts.includes('Alt'),
        }
        expect(press(parts.at(-1)!, held), id).toBe(key)
      }
    expect(press('Z', { metaKey: true, shiftKey: true })).toBe('Ctrl+Shift+z')
    expect(press('?', { shiftKey: true })).toBe('?')
    expect(press('N', { shiftKey: true })).toBe('n')
  })

  it('tells its keys on buttons, in the help and aloud', () => {
    expect(hint('onPaper')).toBe('On paper, also for horns')
    expect(hint('undo', 'undo insert')).toBe('undo insert (Ctrl Z)')
    expect(hint('hear')).toBe('hear it with the band (Enter)')
    expect(hint('stringAbove')).toBe('the same note on the string above (Shift ↑)')
    expect([face(' '), face('+'), face('Ctrl+z'), aloud('Shift+ArrowLeft')]).toEqual(['space', '+', 'Ctrl Z', 'Shift left']) // prettier-ignore
  })
})

describe('a map of keys', () => {
  it('finds what is bound, under each of its keys, and asks the others for the rest', () => {
    const next = vi.fn()
    const other = vi.fn()
    const map = keymap({ next }, (key) => (key === 'm' ? other : undefined))
    for (const key of commands.next.keys) map(key)!({} as KeyboardEvent)
    map('m')!({} as KeyboardEvent)
    expect([next.mock.calls.length, other.mock.calls.length]).toEqual([commands.next.keys.length, 1])
    expect(map('q')).toBeUndefined()
  })
})
