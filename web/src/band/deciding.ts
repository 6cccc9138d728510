/* What the band decides: what is played, from where to where, how fast. Beats are quarters from the first bar; ticks are `quarter` to one. */
import type { LoopBeats } from './settings'

import { quarter } from '../api/facts'
import type { Metre } from '../music/metre'

/** How many choruses are played as one file, so that they differ and it stays small: about 128 bars, always two by two. */
export const chorusesOf = (bars: number) => Math.max(2, Math.min(4, Math.floor(128 / (bars || 12)) & ~1))

/** The tempo that swing follows, by tens; below 130 nothing changes, and where swing is set it follows nothing. */
export const paceOf = (tempo: number, swing: number) => (swing ? 0 : Math.max(130, Math.round(tempo / 10) * 10))

export const sameLoop = (a?: LoopBeats, b?: LoopBeats) => a?.from === b?.from && a?.to === b?.to

/** Beat and chorus of a tick; without a form beats are counted on, and so they are before the first bar. */
export function placeOf(tick: number, form: number) {
  const beat = Math.floor(tick / quarter)
  return form && beat >= 0 ? { beat: beat % form, chorus: Math.floor(beat / form) } : { beat, chorus: 0 }
}

/** After how many choruses the band stops when it is told to at a tick: after this one, or the next where its ending has begun. What has no form is played to its end. */
export function lastChorus(tick: number, form: number, metre: Metre | undefined) {
  if (!form || tick < 0) return 1
  const { chorus, beat } = placeOf(tick, form)
  const ending = metre ? metre.startOf(Math.max(0, metre.bars - 2)) : form
  return chorus + (beat >= ending - 1 ? 2 : 1)
}

/** What of an audition matters to its loop. */
export interface Part {
  /** its own, which is always played */
  loop?: LoopBeats
  /** it has bars that a loop can be set in */
  bars?: unknown
}

/**
 * The ticks between which the band goes round. A chart whose chords are dropped in every other chorus goes round in both:
 * `other` is where the second lies.
 */
export function loopTicks(part: Part | undefined, set: LoopBeats | undefined, form: number, drops: boolean) {
  const ticks = (l: LoopBeats) => ({ from: l.from * quarter, to: l.to * quarter })
  if (part?.loop) return ticks(part.loop)
  if (!set || (part && !part.bars)) return undefined
  return part ? ticks(set) : { ...ticks(set), other: drops ? form * quarter : undefined }
}

/** What is looped next: the whole form, then the chord in hand, then the change that comes. */
export function nextLoop(set: LoopBeats | undefined, here: { chord: LoopBeats; change: LoopBeats } | undefined) {
  if (!set || !here) return set ? undefined : here?.chord
  return sameLoop(set, here.chord) ? here.change : undefined
}

/** What a loop is called. */
export function loopName(set: LoopBeats | undefined, here: { chord: LoopBeats; change: LoopBeats } | undefined) {
  if (!set) return 'form'
  if (sameLoop(set, here?.chord)) return 'chord'
  return sameLoop(set, here?.change) ? 'change' : 'bars'
}

/** A loop of the same length from another beat on, within the form. */
export function moved(set: LoopBeats, to: number, form: number): LoopBeats {
  const from = Math.min(to, form - (set.to - set.from))
  return { from, to: from + set.to - set.from }
}

/** Which of some cues is heard at a beat; −1 where none is. */
export const cueAt = (cues: { beat: number; length: number }[], beat: number | undefined) =>
  beat === undefined ? -1 : cues.findIndex((c) => beat >= c.beat && beat < c.beat + c.length)

/** What becomes of the tempo that one came from when it is halved, or doubled back. */
export const halved = (tempo: number, back: number) =>
  back ? { tempo: back, back: 0 } : { tempo: tempo / 2, back: tempo }
