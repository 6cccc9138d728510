/* A call as it is answered: what was asked, how far it is, and how it ended. Nothing is judged here but whether an answer is
   the one that the core gave with the call. */
import type { Call } from '../../api/client'
import type { Outcome } from './outcomes'

export interface Place {
  string: number
  fret: number
}
/** How tones are answered. */
export type By = 'name' | 'neck' | 'play'

/** A call that is open or over. */
export interface Asked {
  call: Call
  /** Its tones; what is found stands before what is not. */
  notes: Call['notes']
  /** milliseconds of the clock that it is answered by */
  began: number
  /** How many of the call's tones are answered. */
  done: number
  found: Place[]
  /** The last answer that was not it. */
  slip?: Place | string
  slipped: boolean
  /** The first of those, and the degree that was asked for then: what is taken for what. */
  first?: { asked: string; took: Place | string | number }
  covered: boolean
  /** When each tone was played. */
  played: number[]
  /** how it ended, and how long it took; a call that was let go has no time */
  ended?: { how: Outcome['how']; took?: number }
}

/** Half steps that a tone may be off when it is played. */
const inTune = 0.4

/** Whether tones were played as far apart as was asked for; what is not played has no time. */
export const inTime = (played: number[], call: Pick<Call, 'gap' | 'give'>) =>
  !call.gap || played.slice(1).every((ms, i) => Math.abs(ms - played[i]! - call.gap!) <= (call.give ?? 0))

export const ask = (call: Call, now: number): Asked => ({
  call,
  notes: call.notes,
  began: now,
  done: 0,
  found: [],
  slipped: false,
  covered: call.notes.length > 0,
  played: [],
})

type Tone = Call['notes'][number]

/** The tone that is asked for now; in any order, the first that is not found. */
export const wanted = (a: Asked | undefined) => a?.notes[a.done]

const sounds = (midi: number) => (n: Tone) => Math.abs(midi - n.midi) <= inTune
const lies = (at: Place) => (n: Tone) => n.places.some((p) => p.string === at.string && p.fret === at.fret)

/** Brings the tone that an answer is to where it is asked for; without one, it is not what is asked. */
function brought(a: Asked, is: (n: Tone) => boolean): Asked | undefined {
  const i = a.notes.findIndex((n, i) => (a.call.free ? i >= a.done : i === a.done) && is(n))
  if (i <= a.done) return i < 0 ? undefined : a
  return {
    ...a,
    notes: [...a.notes.slice(0, a.done), a.notes[i]!, ...a.notes.slice(a.done, i), ...a.notes.slice(i + 1)],
  }
}
/** In any order, what was found once may be met again. */
const again = (a: Asked, is: (n: Tone) => boolean) => !!a.call.free && a.notes.slice(0, a.done).some(is)

/** Whether a note that is heard is the tone asked for, wherever it is played. */
export const isAsked = (a: Asked | undefined, midi: number) => !!a && !!brought(a, sounds(midi))

/** It is over. */
export function end(a: Asked, how: Outcome['how'], now: number): Asked {
  if (a.ended) return a
  const took = how === 'passed' || how === 'skipped' ? undefined : now - a.began
  return { ...a, covered: false, ended: { how, took } }
}

export const uncover = (a: Asked): Asked => ({ ...a, covered: false })

/** What was heard is told by its number, and not shown. */
function wrong(a: Asked, took: Place | string | number): Asked {
  const first = a.first ?? { asked: wanted(a)?.degree ?? a.call.degree, took }
  return { ...a, slip: typeof took === 'number' ? undefined : took, slipped: true, first }
}

/** The next tone is found at a place; the last one ends the call. */
function right(a: Asked, at: Place, now: number): Asked {
  const next = { ...a, slip: undefined, found: [...a.found, at], done: a.done + 1 }
  return next.done < a.notes.length ? next : complete(next, now)
}

function complete(a: Asked, now: number) {
  if (!a.covered && a.call.notes.length) return end(a, 'shown', now)
  if (a.slipped) return end(a, 'late', now)
  return end(a, inTime(a.played, a.call) ? 'right' : 'uneven', now)
}

/** A degree is named, or for a bend how many half steps. */
export function name(a: Asked, option: string, now: number): Asked {
  if (a.ended || a.call.sought) return a
  const tone = wanted(a)
  if (!a.notes.length) return option === a.call.answer ? complete({ ...a, slip: undefined }, now) : wrong(a, option) // prettier-ignore
  return tone?.degree === option ? right(a, tone.places[0]!, now) : wrong(a, option)
}

/** A place of the neck is pressed. */
export function press(a: Asked, at: Place, now: number): Asked {
  if (a.ended || !a.notes.length) return a
  const is = lies(at)
  const met = brought(a, is)
  if (met) return right(met, at, now)
  return again(a, is) ? a : wrong(a, at)
}

/** A note is heard, at its own time; what it was instead is not shown. */
export function play(a: Asked, midi: number, at: number, now: number): Asked {
  if (a.ended || !a.notes.length) return a
  const is = sounds(midi)
  const met = brought(a, is)
  if (met) return right({ ...met, played: [...a.played, at] }, wanted(met)!.places[0]!, now)
  return again(a, is) ? a : wrong(a, midi)
}
