/* What can be done to the notes of a line, as commands that name a note by its id. */
import type { LineBody, LineNote } from '../api/client'
import { settled, stillGuessed } from './guesses'
import { inOrder } from './steps'
import type { Command } from './useDocument'

const onNotes =
  (change: (notes: LineNote[]) => LineNote[]) =>
  (line: LineBody): LineBody => ({ ...line, notes: change(line.notes) })

/** Puts a fret on a string at a tick, in place of what stood there; what sounds on there is cut short. */
export const insert = (note: LineNote): Command => ({
  name: 'note',
  apply: onNotes((notes) =>
    inOrder([
      ...notes
        .filter((n) => n.id !== note.id && !(n.start === note.start && n.string === note.string))
        .map((n) =>
          n.start < note.start && n.start + n.length > note.start ? { ...n, length: note.start - n.start } : n,
        ),
      note,
    ]),
  ),
})

export const alter = (id: number, name: string, change: (n: LineNote) => Partial<LineNote>): Command => ({
  name,
  apply: onNotes((notes) =>
    notes.map((n) => {
      if (n.id !== id) return n
      const to = change(n)
      return { ...settled(n), ...stillGuessed(n, to), ...to }
    }),
  ),
})

export const move = (id: number, start: number): Command => {
  const moved = alter(id, 'move', () => ({ start }))
  return { ...moved, apply: (line) => onNotes(inOrder)(moved.apply(line)) }
}

/** Notes lie elsewhere on the neck; the core finds fingers for them. */
export const place = (there: { id: number; string: number; fret: number }[]): Command => ({
  name: 'another place on the neck',
  apply: onNotes((notes) => {
    const to = new Map(there.map((t) => [t.id, t]))
    return notes.map((n) => {
      const t = to.get(n.id!)
      return t ? { ...settled(n), string: t.string, fret: t.fret, finger: 0 } : n
    })
  }),
})

/** What the core proposes: some notes go, some come or change. */
export const mend = (gone: number[], put: LineNote[]): Command => ({
  name: 'mended landing',
  apply: onNotes((notes) => {
    const away = new Set([...gone, ...put.map((n) => n.id)])
    return inOrder([...notes.filter((n) => !away.has(n.id!)), ...put])
  }),
})

/** How many notes before and behind a change the core looks at to mend it: the phrase (two bars at most) and the hand's way in and out. */
const before = 80
const behind = 24

/** A line with the notes round a tick alone: mending one change asks no more of a long line than of a short one. */
export function around(line: LineBody, tick: number): LineBody {
  const at = line.notes.findIndex((n) => n.start > tick)
  const middle = at < 0 ? line.notes.length : at
  const near = new Set(line.notes.slice(Math.max(0, middle - before), middle + behind))
  // The note with the highest number comes along, so that new ones get numbers of their own.
  const last = line.notes.reduce<LineNote | undefined>((a, n) => ((n.id ?? 0) > (a?.id ?? 0) ? n : a), undefined)
  return { ...line, notes: line.notes.filter((n) => near.has(n) || n === last) }
}

export const remove = (id: number): Command => ({
  name: 'deletion',
  apply: onNotes((notes) => notes.filter((n) => n.id !== id)),
})

export const confirm = (id?: number): Command => ({
  name: 'what was guessed',
  apply: onNotes((notes) => notes.map((n) => (id === undefined || n.id === id ? settled(n) : n))),
})

export const change = (name: string, part: Partial<LineBody>): Command => ({
  name,
  typed: 'title' in part,
  apply: (line) => ({ ...line, ...part }),
})
