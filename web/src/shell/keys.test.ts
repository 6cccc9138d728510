/* Letters that a player has changed, or switched off. */
import { describe, expect, it } from 'vitest'
import { commands, pressed, type CommandId } from './commands'
import { isLetter, keysOf, useKeys, type OwnKeys } from './keys'
import { changeable, takenBy } from './otherKeys'
import { hint, keymap } from './useCommands'

const all = Object.keys(commands) as CommandId[]
const usual: OwnKeys = { letters: true, own: {} }
const off: OwnKeys = { letters: false, own: {} }

describe('letters', () => {
  it.each(all)('%s has its keys, and without letters those that are none', (id) => {
    expect(keysOf(id, usual)).toEqual(commands[id].keys)
    const left = keysOf(id, off)
    expect(left.some(isLetter)).toBe(false)
    expect(left).toEqual((commands[id].keys as string[]).filter((k) => !isLetter(k)))
    expect(keysOf(id, off, true)).toEqual(commands[id].keys) // where the focus says what is meant
  })
  it('space, arrows and what is held with Control are none', () => {
    for (const key of [' ', 'ArrowLeft', 'Shift+Enter', 'Ctrl+z', 'PageDown']) expect(isLetter(key)).toBe(false)
    for (const key of ['a', '7', '?', '[', 'é', 'ж']) expect(isLetter(key)).toBe(true)
  })
  it.each(changeable)('%s can have another, which nobody else in reach has', (id) => {
    const own = { letters: true, own: { [id]: 'q' } }
    expect(keysOf(id, own)[0]).toBe('q')
    expect(keysOf(id, own).filter(isLetter)).toEqual(['q'])
    expect(takenBy(id, 'q', usual)).toBeUndefined()
    for (const other of all)
      if (other !== id && commands[other].room === commands[id].room) expect(takenBy(other, 'q', own)).toBe(id)
  })
  it('of those that are in reach of each other no two share a letter', () => {
    for (const id of changeable) expect(takenBy(id, keysOf(id, usual)[0]!, usual), id).toBeUndefined()
  })
  it('are listened to, and told on buttons, as they are now', () => {
    const kept = useKeys()
    const done: string[] = []
    const map = keymap({ loop: () => done.push('loop'), play: () => done.push('play') }, (key) => (key === 'x' ? () => done.push('x') : undefined)) // prettier-ignore
    const press = (key: string) => map(key)?.({} as KeyboardEvent)
    for (const key of ['l', ' ', 'x']) press(key)
    kept.value.own = { loop: 'q' }
    expect(hint('loop')).toContain('(Q)')
    for (const key of ['l', 'q']) press(key)
    kept.value.letters = false
    expect(hint('loop')).not.toContain('(')
    for (const key of ['q', ' ', 'x']) press(key)
    expect(done).toEqual(['loop', 'play', 'x', 'loop', 'play'])
    kept.value = { letters: true, own: {} }
  })
  it('count by their place on a keyboard of other letters', () => {
    const none = { shiftKey: false, ctrlKey: false, metaKey: false, altKey: false }
    expect(pressed({ ...none, key: 'д', code: 'KeyL' })).toBe('l')
    expect(pressed({ ...none, key: 'Я', code: 'KeyZ', ctrlKey: true })).toBe('Ctrl+z')
    expect(pressed({ ...none, key: 'z', code: 'KeyY' })).toBe('z') // Latin ones are what is written on them
    expect(pressed({ ...none, key: 'ß', code: 'Minus' })).toBe('ß')
  })
})
