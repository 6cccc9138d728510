/* The one table of what a foot can do: any key of a page-turner and any MIDI switch can be learned for it. Places only bind
   commands; a deed goes to the first of its commands that the place in view has. */
import type { CommandId } from './commands'

export interface PedalDeed {
  id: string
  name: string
  commands: CommandId[]
  /** Only while the band plays, or only while it is silent. */
  while?: 'playing' | 'silent'
}

export const pedalDeeds = [
  {
    id: 'next',
    name: 'next: the next call, chord, note or stretch',
    commands: ['skip', 'next', 'later', 'stretchLater'],
  },
  { id: 'back', name: 'back: the chord, note or stretch before', commands: ['previous', 'earlier', 'stretchEarlier'] },
  { id: 'again', name: 'again: the same call once more; by ear, my turn', commands: ['again', 'myTurn'] },
  { id: 'show', name: 'show: uncover the neck; by ear, propose the notes', commands: ['uncover', 'listen'] },
  { id: 'keep', name: 'keep: the last two choruses; by ear, that the note is right', commands: ['keep', 'settle'] },
  { id: 'lost', name: 'lost: the bar is told, and only the box is shown until the next top', commands: ['lost'] },
  { id: 'loop', name: 'loop the chord, the change, or nothing', commands: ['loop'] },
  { id: 'start', name: 'start the band', commands: ['play'], while: 'silent' },
  { id: 'stop', name: 'stop the band', commands: ['play'], while: 'playing' },
  { id: 'slower', name: 'slower', commands: ['slower'] },
  { id: 'faster', name: 'faster', commands: ['faster'] },
] as const satisfies readonly PedalDeed[]
export type PedalId = (typeof pedalDeeds)[number]['id']

/** What was learned: for each deed its signals, such as "key PageDown" or "midi 64". */
export type Pedals = Partial<Record<PedalId, string[]>>

/** What a MIDI message says as a switch: a controller that is pressed, or a program that is chosen; a note is none. */
export function switchOf(data: ArrayLike<number>): string | undefined {
  const [status = 0, number = 0, value = 0] = [data[0], data[1], data[2]]
  if (status >> 4 === 11 && value >= 64 && number < 120 && !parameters.has(number)) return `midi ${number}`
  if (status >> 4 === 12) return `program ${number}`
  return undefined
}
/** Controllers that instruments send of themselves: banks, data and parameters. */
const parameters = new Set([0, 6, 32, 38, 98, 99, 100, 101])

/** Keys that no pedal sends alone, or that would lock a player out. */
const never = new Set(['Escape', 'Tab', 'Shift', 'Control', 'Alt', 'Meta', 'Unidentified', 'Dead'])
export const keySignal = (key: string) => (never.has(key) ? undefined : `key ${key}`)

const all: readonly PedalDeed[] = pedalDeeds
const idOf = (d: PedalDeed) => d.id as PedalId

/** A signal does one thing: what it did before it does no more. One that starts may also stop. */
export function learned(pedals: Pedals, id: PedalId, signal: string): Pedals {
  const own = all.find((d) => d.id === id)!
  const out: Pedals = {}
  for (const d of all) {
    const stays = d === own || (!!d.while && !!own.while)
    const list = (pedals[idOf(d)] ?? []).filter((s) => s !== signal || stays)
    if (d === own && !list.includes(signal)) list.push(signal)
    if (list.length) out[idOf(d)] = list
  }
  return out
}
export const forgotten = (pedals: Pedals, id: PedalId, signal: string): Pedals =>
  Object.fromEntries(
    Object.entries(pedals)
      .map(([of, list]) => [of, of === id ? list.filter((s) => s !== signal) : list] as const)
      .filter(([, list]) => list.length),
  )

/** The deed of a signal now. */
export const deedFor = (pedals: Pedals, signal: string, playing: boolean): PedalDeed | undefined =>
  all.find((d) => pedals[idOf(d)]?.includes(signal) && (!d.while || (d.while === 'playing') === playing))

/** A signal as it is written. */
export function signalName(signal: string): string {
  const [kind, ...rest] = signal.split(' ')
  const what = rest.join(' ')
  if (kind === 'key') return what === '' ? 'space' : what
  return kind === 'midi' ? `switch ${what}` : `program ${Number(what) + 1}`
}

/** A pedal that bounces sends twice; milliseconds in which the second is the same press. */
export const bounces = 150
