/* Two changes of one thing, made apart from the same state: joined where they touch different parts, note by note. */
import type { LineBody, LineNote } from '../api/client'
import { canonical } from './canonical'
import { inOrder } from './steps'

const same = (a: unknown, b: unknown) => canonical(a) === canonical(b)

/** Fields changed on one side only are taken from there; undefined where both changed one differently. */
export function mergeFields<T extends object>(base: T, mine: T, theirs: T): T | undefined {
  const out = { ...theirs } as Record<string, unknown>
  for (const k of new Set([...Object.keys(mine), ...Object.keys(theirs)]) as Set<keyof T & string>) {
    if (same(mine[k], base[k]) || same(mine[k], theirs[k])) continue
    if (!same(theirs[k], base[k])) return undefined
    out[k] = mine[k]
  }
  return out as T
}

/** A note as the player wrote it; fingers and spelling are the core's, and follow from the rest. */
const written = (n?: LineNote) => n && { ...n, id: undefined, finger: undefined, note: undefined }

function mergeNotes(base: LineNote[], mine: LineNote[], theirs: LineNote[]): LineNote[] | undefined {
  const [b, m, t] = [base, mine, theirs].map((list) => new Map(list.map((n) => [n.id, n])))
  const is = (x?: LineNote, y?: LineNote) => same(written(x), written(y))
  /** What a note loses when the one it was slid or hammered from is taken away is no change of the player's. */
  const loosed = (x?: LineNote, old?: LineNote) => !!x && !!old?.join && !x.join && is(x, { ...old, join: undefined })
  const out: LineNote[] = []
  let last = Math.max(0, ...[base, mine, theirs].flat().map((n) => n.id ?? 0))
  if (base.some((n) => !n.id)) return undefined
  for (const id of new Set([...t!.keys(), ...m!.keys()])) {
    const [old, my, their] = [b!.get(id), m!.get(id), t!.get(id)]
    if (!id) return undefined
    if (!old && my && their && !is(my, their))
      out.push(their, { ...my, id: ++last }) // both wrote one anew, under the same number
    else if (is(my, old) || is(my, their)) {
      if (their) out.push(their)
    } else if (is(their, old)) {
      if (my) out.push(my)
    } else if (loosed(their, old)) {
      if (my) out.push({ ...my, join: undefined })
    } else if (loosed(my, old)) {
      if (their) out.push({ ...their, join: undefined })
    } else return undefined
  }
  const places = new Set(out.map((n) => `${n.start} ${n.string}`))
  if (places.size < out.length) return undefined // two notes at once on a string
  return inOrder(out)
}

/** Two changes of a line: undefined where both changed the same note or the same field. */
export function mergeLines(base: LineBody, mine: LineBody, theirs: LineBody): LineBody | undefined {
  const rest = mergeFields({ ...base, notes: [] }, { ...mine, notes: [] }, { ...theirs, notes: [] })
  const notes = mergeNotes(base.notes, mine.notes, theirs.notes)
  return rest && notes && { ...rest, notes }
}

const words: Record<string, string> = {
  title: 'the title',
  key: 'the key',
  feel: 'the feel',
  tempo: 'the tempo',
  beats: 'the metre',
  text: 'the chords',
  palette: 'the palette',
  low: 'the frets',
  high: 'the frets',
  locked: 'what is locked',
  strings: 'the strings it is on',
  tags: 'the tags',
  tuning: 'the tuning',
  capo: 'the capo',
  exercise: 'what it practises',
  closing: 'how it closes',
  intro: 'the intro',
  ending: 'the ending',
  reading: 'the pitch it is read in',
  home: 'where it was written',
  remark: 'the remark',
  source: 'where it is from',
}

/** What differs between two of one thing, in words. */
export function differences(mine: object, theirs: object): string {
  const a = mine as Record<string, unknown>
  const b = theirs as Record<string, unknown>
  const list = new Set<string>()
  for (const k of new Set([...Object.keys(a), ...Object.keys(b)])) {
    if (same(a[k], b[k])) continue
    if (k !== 'notes') list.add(words[k] ?? 'a setting')
    else list.add(`the notes (${(a[k] as unknown[])?.length ?? 0} here, ${(b[k] as unknown[])?.length ?? 0} there)`)
  }
  const all = [...list]
  const last = all.pop() ?? ''
  return all.length ? `${all.join(', ')} and ${last}` : last
}
