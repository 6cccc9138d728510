/* Where the form of a chart lies in a recording. */
import type { Metre } from '../music/metre'
import { beatAt, secondOf, type Anchor } from './inHand'

/** Of a recording so much is taken at most, in seconds. */
const longest = 20 * 60

export interface Course {
  /** the beat of the recording at which the form begins first */
  top: number
  /** how often it comes round; of one that ends before the form does, 1 */
  choruses: number
  /** beats from there on that are in the recording, of those choruses */
  beats: number
  /** quarter notes a minute, in the middle */
  tempo: number
}

/** first is the bar of the chart, from 0, that begins with beat 0 of the recording; before the chart begins it is less. */
export function overChart(
  { anchors, first }: { anchors: readonly Anchor[]; first: number },
  metre: Metre,
  seconds: number,
): Course | undefined {
  if (anchors.length < 2 || !metre.length) return undefined
  const bar = first % metre.bars
  let top = first < 0 ? -first * metre.beatsOf(0) : bar ? metre.length - metre.startOf(bar) : 0
  while (secondOf(anchors, top)! < -0.05) top += metre.length
  const until = Math.min(seconds, secondOf(anchors, top)! + longest)
  const beats = beatAt(anchors, until)! - top
  if (beats < 1) return undefined
  // A last beat that rings out, or is cut, is there.
  const choruses = Math.max(1, Math.min(32, Math.floor((beats + 1) / metre.length)))
  const there = Math.min(choruses * metre.length, beats)
  return {
    top,
    choruses,
    beats: there,
    tempo: (60 * there) / (secondOf(anchors, top + there)! - secondOf(anchors, top)!),
  }
}

/** How much of the form is there, in words: two choruses, or its first four bars. */
export function muchOf({ choruses, beats }: Pick<Course, 'choruses' | 'beats'>, metre: Metre): string {
  if (choruses > 1) return `${choruses} choruses of it`
  if (beats + 1 >= metre.length) return 'one chorus of it'
  const { bar } = metre.at(Math.floor(beats + 0.001))
  return bar > 1 ? `its first ${bar} bars` : bar ? 'its first bar' : 'less than a bar of it'
}
