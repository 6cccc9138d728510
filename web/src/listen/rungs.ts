/* A ladder of tempi that follows how it goes: up after clean passes, down after ones that were not. */
import { maxTempo, minTempo } from '../band/settings'

export interface Rung {
  tempo: number
  /** clean passes in a row at this tempo; below 0, those that were not */
  row: number
}

/** Beats a minute from rung to rung; passes in a row that lead up, and down. */
const step = 5
const up = 2
const down = 2

export function climbed({ tempo, row }: Rung, clean: boolean): Rung {
  const now = clean ? Math.max(0, row) + 1 : Math.min(0, row) - 1
  if (now >= up) return { tempo: Math.min(maxTempo, tempo + step), row: 0 }
  if (now <= -down) return { tempo: Math.max(minTempo, tempo - step), row: 0 }
  return { tempo, row: now }
}

/** A pass is clean when nearly all that counts in it was right. */
export const clean = (right: number, of: number) => of > 0 && right >= 0.95 * of
