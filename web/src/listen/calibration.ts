/* What a calibration finds: from where on there is something to hear, and how far what is played lies behind. */

const middle = (list: number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]

/** Decibels that the gate lies over the band alone, and where it lies at least and at most. */
const above = 6
const gates: [number, number] = [-64, -30]
/** Decibels between band and guitar from which on nothing is graded. */
export const tooLoud = -12
/** Of the eight notes, how many must be heard; seconds that one may be off its click. */
const least = 5
const reach = 0.3

/** The level from which on there is something to hear, from those of the band alone. */
export function gateOf(levels: number[]): { gate: number; band: number } {
  const loud = levels.toSorted((a, b) => a - b)[Math.floor(levels.length * 0.9)] ?? -90
  return { gate: Math.max(gates[0], Math.min(gates[1], loud + above)), band: loud }
}

/** Seconds from clicks to the notes that were played to them; undefined where too few were heard. */
export function delayOf(clicks: number[], strokes: number[]): { delay?: number; heard: number } {
  const offs = clicks.flatMap((c) => {
    const near = strokes.map((s) => s - c).filter((d) => Math.abs(d) < reach)
    return near.length ? [near.reduce((a, b) => (Math.abs(b) < Math.abs(a) ? b : a))] : []
  })
  return { heard: offs.length, delay: offs.length >= least ? middle(offs) : undefined }
}
