/* What is done to a thing that is edited, as data: small changes that can be turned round, stored, sent again, and set
   over what came from elsewhere. A thing is a record of fields; of its notes each is known by its number. */
import { canonical } from './canonical'

export interface Numbered {
  id?: number
}
/** One field, one note that came or went, or some fields of one note. */
export type Change =
  | { kind: 'set'; field: string; from: unknown; to: unknown }
  | { kind: 'put'; note: Numbered }
  | { kind: 'drop'; note: Numbered }
  | { kind: 'alter'; id: number; from: Record<string, unknown>; to: Record<string, unknown> }

/** How steps are written. Those of another number are not read. */
export const stepsVersion = 1
export interface Step {
  v: number
  /** what it is called when it is taken back */
  name: string
  changes: Change[]
}

type Fields = Record<string, unknown>
type Notes = (Numbered & { start?: number; string?: number })[]
const same = (a: unknown, b: unknown) => a === b || canonical(a) === canonical(b)

/** Notes are followed one by one where each has a number of its own. */
function notesOf(of: Fields): Notes | undefined {
  const list = of.notes
  if (!Array.isArray(list)) return undefined
  const ids = new Set<number>()
  for (const n of list as Notes) {
    if (!n.id || ids.has(n.id)) return undefined
    ids.add(n.id)
  }
  return list as Notes
}

/** By onset, then from the lowest string, as they are written. */
export const inOrder = <N extends Numbered & { start?: number; string?: number }>(notes: N[]) =>
  notes.sort(
    (a, b) => (a.start ?? 0) - (b.start ?? 0) || (b.string ?? 0) - (a.string ?? 0) || (a.id ?? 0) - (b.id ?? 0),
  )

/** The fields in which two differ, as they are in each. */
function fields(a: Fields, b: Fields, but: string[] = []) {
  const from: Fields = {}
  const to: Fields = {}
  for (const k of new Set([...Object.keys(a), ...Object.keys(b)])) {
    if (but.includes(k) || same(a[k], b[k])) continue
    from[k] = a[k]
    to[k] = b[k]
  }
  return { from, to }
}

/** What makes one of the other. */
export function diff(before: object, after: object): Change[] {
  const [a, b] = [before as Fields, after as Fields]
  const [was, is] = [notesOf(a), notesOf(b)]
  const apart = was && is ? ['notes'] : []
  const { from, to } = fields(a, b, apart)
  const changes: Change[] = Object.keys(to).map((field) => ({ kind: 'set', field, from: from[field], to: to[field] }))
  if (!was || !is || was === is) return changes
  const old = new Map(was.map((n) => [n.id!, n]))
  for (const n of is) {
    const before = old.get(n.id!)
    old.delete(n.id!)
    if (before === n) continue
    if (!before) changes.push({ kind: 'put', note: n })
    else {
      const parts = fields(before as Fields, n as Fields)
      if (Object.keys(parts.to).length) changes.push({ kind: 'alter', id: n.id!, ...parts })
    }
  }
  for (const note of old.values()) changes.push({ kind: 'drop', note })
  return changes
}

/** Does changes to a thing. What is no longer there to be changed stays away. */
export function apply<T extends object>(changes: Change[], to: T): T {
  const out = { ...to } as Fields
  let notes: Map<number, Numbered> | undefined
  const list = () => (notes ??= new Map((notesOf(out) ?? []).map((n) => [n.id!, n])))
  for (const c of changes) {
    if (c.kind === 'set') out[c.field] = c.to
    else if (c.kind === 'put') list().set(c.note.id!, c.note)
    else if (c.kind === 'drop') list().delete(c.note.id!)
    else {
      const n = list().get(c.id)
      if (n) list().set(c.id, { ...n, ...c.to })
    }
  }
  if (notes) out.notes = inOrder([...notes.values()] as Notes)
  return out as T
}

/** Changes as they are done to a thing in which others wrote notes under the same numbers: ours get numbers of their own. */
export function renumbered(changes: Change[], to: object): Change[] {
  const there = new Set((notesOf(to as Fields) ?? []).map((n) => n.id!))
  let last = Math.max(0, ...there, ...changes.map((c) => (c.kind === 'put' ? c.note.id! : 0)))
  const now = new Map<number, number>()
  const id = (old: number) => now.get(old) ?? old
  return changes.map((c): Change => {
    if (c.kind === 'put' && there.has(c.note.id!)) now.set(c.note.id!, ++last)
    if (c.kind === 'put' || c.kind === 'drop') return { ...c, note: { ...c.note, id: id(c.note.id!) } }
    return c.kind === 'alter' ? { ...c, id: id(c.id) } : c
  })
}

/** What takes them back. */
export const inverse = (changes: Change[]): Change[] =>
  changes.toReversed().map((c): Change => {
    if (c.kind === 'put') return { kind: 'drop', note: c.note }
    if (c.kind === 'drop') return { kind: 'put', note: c.note }
    if (c.kind === 'set') return { ...c, from: c.to, to: c.from }
    return { ...c, from: c.to, to: c.from }
  })

/** The places that a change touches: a field, a note, or fields of a note. */
function places(c: Change): string[] {
  if (c.kind === 'set') return [c.field]
  if (c.kind === 'alter') return Object.keys(c.to).map((f) => `#${c.id} ${f}`)
  return [`#${c.note.id}`]
}
const noteOf = (place: string) => (place.startsWith('#') ? place.split(' ')[0]! : '')

/** Changes as they stand over others that came from elsewhere: what those touched is no longer ours to change, or to take
 * back. What only the core says of a note (its finger, its spelling) is nobody's. */
export function over(theirs: Change[], mine: Change[]): Change[] {
  const touched = new Set(theirs.flatMap(places).filter((p) => !/ (finger|note)$/.test(p)))
  const notes = new Set([...touched].map(noteOf))
  const whole = new Set([...touched].filter((p) => p.startsWith('#') && !p.includes(' ')))
  return mine.flatMap((c): Change[] => {
    if (c.kind === 'set') return touched.has(c.field) ? [] : [c]
    if (c.kind !== 'alter') return notes.has(`#${c.note.id}`) ? [] : [c]
    if (whole.has(`#${c.id}`)) return []
    const left = Object.keys(c.to).filter((f) => !touched.has(`#${c.id} ${f}`))
    if (left.length === Object.keys(c.to).length) return [c]
    if (!left.length) return []
    const pick = (of: Record<string, unknown>) => Object.fromEntries(left.map((f) => [f, of[f]]))
    return [{ ...c, from: pick(c.from), to: pick(c.to) }]
  })
}

/** Whether two have nothing to do with each other: no place is touched by both. */
export const apart = (theirs: Change[], mine: Change[]) => canonical(over(theirs, mine)) === canonical(mine)

/** Whether a stored step is one that this program can do. */
export function readable(step: unknown): step is Step {
  const s = step as Partial<Step> | undefined
  return (
    s?.v === stepsVersion &&
    typeof s.name === 'string' &&
    Array.isArray(s.changes) &&
    s.changes.every((c: Partial<Change>) =>
      c.kind === 'set'
        ? typeof (c as { field?: unknown }).field === 'string'
        : c.kind === 'alter'
          ? typeof (c as { id?: unknown }).id === 'number' && !!(c as { to?: unknown }).to
          : (c.kind === 'put' || c.kind === 'drop') && !!(c as { note?: Numbered }).note?.id,
    )
  )
}
