/* How loud each player is heard, with mutes and the metronome. */

export interface Levels {
  levels: Record<string, number>
  muted: string[]
  click: boolean
  clickOnly: boolean
}

/** Players whose place a recording takes. */
export const replaced = ['drums', 'bass', 'chords']

export function levelsOf(kept: Levels, recorded = false): Record<string, number> {
  const out: Record<string, number> = {}
  for (const [player, value] of Object.entries(kept.levels)) {
    const silent =
      player === 'metronome'
        ? !kept.click && !kept.clickOnly
        : (recorded && replaced.includes(player)) ||
          kept.muted.includes(player) ||
          (kept.clickOnly && player !== 'lead')
    out[player] = silent ? 0 : value
    if (player === 'lead') out['lead beside'] = out[player]
  }
  return out
}
