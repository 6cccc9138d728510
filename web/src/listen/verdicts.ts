import type { Study } from '../api/client'

export interface Verdict {
  kind: 'landed' | 'early' | 'late' | 'missed' | 'rub' | 'unheard'
  says: string
}

const kinds: Record<string, Verdict['kind']> = {
  late: 'late',
  'wrong note': 'missed',
}

/** What stands under the notes: how each change is met, and where a note rests that should not. */
export function verdictsOf(study: Study | undefined): Map<number, Verdict> {
  const out = new Map<number, Verdict>()
  for (const n of study?.score.notes ?? []) if (n.does?.fault) out.set(n.id, { kind: 'rub', says: n.does.says })
  for (const l of study?.report.landings ?? [])
    if (l.note) out.set(l.note, { kind: l.landed ? 'landed' : (kinds[l.when] ?? 'missed'), says: l.says })
  return out
}

/** The verdicts of now, where nothing changed those of before: what stays the same is not drawn anew. */
export function steady(now: Map<number, Verdict>, before: Map<number, Verdict> | undefined): Map<number, Verdict> {
  let same = now.size === before?.size
  const out = new Map<number, Verdict>()
  for (const [id, v] of now) {
    const old = before?.get(id)
    const kept = old?.kind === v.kind && old.says === v.says ? old : v
    same &&= kept === old
    out.set(id, kept)
  }
  return same ? before! : out
}
