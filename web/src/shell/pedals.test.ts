import { describe, expect, it } from 'vitest'
import { commands } from './commands'
import { deedFor, forgotten, keySignal, learned, pedalDeeds, signalName, switchOf, type Pedals } from './pedals'

describe('pedals', () => {
  it.each(pedalDeeds.map((d) => d.id))('%s learns a key and a switch, and forgets them', (id) => {
    const [key, midi] = ['key PageDown', 'midi 64']
    const both = learned(learned({}, id, key), id, midi)
    expect(both[id]).toEqual([key, midi])
    expect(learned(both, id, key)).toEqual(both)
    const deed = pedalDeeds.find((d) => d.id === id)!
    const playing = !('while' in deed) || deed.while === 'playing'
    expect(deedFor(both, midi, playing)?.id).toBe(id)
    expect(deedFor(both, 'midi 65', playing)).toBeUndefined()
    expect(forgotten(forgotten(both, id, key), id, midi)).toEqual({})
    for (const c of deed.commands) expect(commands).toHaveProperty(c)
  })
  it('lead on and back in every place that is played from, play, loop and set the tempo', () => {
    const rooms = ['bench', 'line', 'ear'] as const
    for (const id of ['next', 'back'] as const) {
      const of = pedalDeeds.find((d) => d.id === id)!.commands.map((c) => commands[c].room)
      for (const room of rooms) expect(of, `${id} in ${room}`).toContain(room)
    }
    expect(pedalDeeds.find((d) => d.id === 'next')!.commands.map((c) => commands[c].room)).toContain('practice')
    for (const id of ['loop', 'start', 'stop', 'slower', 'faster'] as const)
      for (const c of pedalDeeds.find((d) => d.id === id)!.commands) expect(commands[c].room).toBe('everywhere')
  })
  it('do one thing each: what is learned anew is unlearned before', () => {
    const then = learned(learned({}, 'next', 'midi 64'), 'loop', 'midi 64')
    expect(then).toEqual({ loop: ['midi 64'] })
  })
  it('start and stop may be one switch', () => {
    const one: Pedals = learned(learned({}, 'start', 'midi 66'), 'stop', 'midi 66')
    expect(deedFor(one, 'midi 66', false)?.id).toBe('start')
    expect(deedFor(one, 'midi 66', true)?.id).toBe('stop')
    expect(learned(one, 'next', 'midi 66')).toEqual({ next: ['midi 66'] })
  })
  it.each([
    [[0xb0, 64, 127], 'midi 64'],
    [[0xb5, 80, 64], 'midi 80'],
    [[0xb0, 64, 0], undefined], // let go
    [[0xb0, 1, 30], undefined], // a wheel on its way
    [[0xb0, 6, 100], undefined],
    [[0xb0, 123, 127], undefined],
    [[0xc0, 4], 'program 4'],
    [[0x90, 60, 100], undefined], // a note is played, not pressed
    [[], undefined],
  ])('%j is the switch %s', (data, want) => expect(switchOf(data)).toBe(want))
  it('never take the keys that lead out', () => {
    for (const key of ['Escape', 'Tab', 'Shift']) expect(keySignal(key)).toBeUndefined()
    expect(['key PageDown', 'key  ', 'midi 64', 'program 4'].map(signalName)).toEqual([
      'PageDown',
      ' ',
      'switch 64',
      'program 5',
    ])
  })
})
