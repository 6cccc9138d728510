/* A step of a form as it is played: one chord, where it stands. */
/** A chord of the form at its place. */
export interface Step {
  bar: number
  change: number
  /** index of the map's chords */
  chord: number
  /** in its bar, from 1 */
  beat: number
  /** beats */
  length: number
}
