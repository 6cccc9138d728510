/* The ways to play a note, as the core lists them: entered by a key, each press the next of its values. */
import type { Catalogue, LineNote } from '../api/client'

export type Way = Catalogue['ways'][number]
type Fields = Record<string, unknown>

/** Which of its values a note has it in; −1 is none. */
const at = (way: Way, note: LineNote) => way.values.findIndex((v) => v.is === (note as Fields)[way.field])

/** Whether a note is played so, in whatever measure. */
export const played = (way: Way, note: LineNote) =>
  way.values.length === 1 ? at(way, note) === 0 : !!(note as Fields)[way.field]

/** Whether it can be asked for: what it is a part of is there. */
export const fits = (way: Way, note: LineNote) => !way.on || !!(note as Fields)[way.on]

/** How it stands with a note, in words. */
export const told = (way: Way, note: LineNote) => {
  const value = way.values[at(way, note)]?.name
  return value ? `${way.name} ${value}` : way.name
}

/** The next of its values. What is a part of it ends with it. */
export function turned(way: Way, ways: Way[], note: LineNote): Partial<LineNote> {
  const next: unknown = way.values[at(way, note) + 1]?.is
  const change: Fields = { [way.field]: next }
  const without = (field: string): void =>
    ways
      .filter((w) => w.on === field)
      .forEach((w) => {
        change[w.field] = undefined
        without(w.field)
      })
  if (next === undefined) without(way.field)
  return change as Partial<LineNote>
}
