import type { Study } from '../../api/client'

export interface Verdict {
  kind: 'landed' | 'early' | 'late' | 'missed' | 'rub'
  says: string
}

const kinds: Record<string, Verdict['kind']> = {
  late: 'late',
  'wrong note': 'missed',
}

/** What stands under the notes: how each change is met, and where a note rests that should not. */
export function verdictsOf(report: Study['report'] | undefined): Map<number, Verdict> {
  const out = new Map<number, Verdict>()
  for (const [i, n] of (report?.notes ?? []).entries()) if (n.fault) out.set(i, { kind: 'rub', says: n.says })
  for (const l of report?.landings ?? [])
    if (l.note >= 0) out.set(l.note, { kind: l.landed ? 'landed' : (kinds[l.when] ?? 'missed'), says: l.says })
  return out
}
