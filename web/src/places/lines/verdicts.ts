import type { Study } from '../../api/client'

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
