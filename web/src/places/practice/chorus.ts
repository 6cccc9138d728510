/* Free playing is taken chorus by chorus: where a tick of the band lies, and which choruses are held. */
import { quarter } from '../../api/facts'
import type { FreeTake, HeardNote, PlayedSpan } from '../../api/client'

/** A chorus that was played. */
export interface Chorus {
  /** of the mode, from 0 */
  pass: number
  free: FreeTake
  heard: HeardNote[]
  /** how far it was played; nothing where that is all of it */
  span?: PlayedSpan
  /** as it sounded, of the last ones, where that is to be kept */
  sound?: Promise<ArrayBuffer | undefined>
  /** played by a simulated player */
  simulated: boolean
  /** its line in the log */
  logged?: Promise<number | undefined>
}

/** Choruses whose sound is held, so that what was good can be kept afterwards. */
export const held = 2
/** More choruses than a pass of the band has. */
const most = 64
/** Ticks before the first bar in which a note may belong to it. */
const pickup = quarter

/**
 * Where a tick of a pass of the band lies: in which chorus, each pass having numbers of its own, and where in it. A note just
 * before the first bar is the first chorus's; one before that is nobody's.
 */
export function chorusAt(at: { tick: number; pass: number } | undefined, form: number) {
  if (!at || !form || at.tick < -pickup) return undefined
  const chorus = Math.max(0, Math.floor(at.tick / form))
  return { tick: chorus ? at.tick - chorus * form : at.tick, pass: at.pass * most + chorus }
}

/** Choruses are counted one after another, whatever the band calls them. */
export class Counted {
  private readonly seen = new Map<number, number>()
  count(pass: number) {
    const known = this.seen.get(pass) ?? this.seen.size
    this.seen.set(pass, known)
    return known
  }
  /** Which chorus of its pass the one of a number was; the first where it was never counted. */
  chorusOf(n: number) {
    for (const [pass, of] of this.seen) if (of === n) return pass % most
    return 0
  }
  clear() {
    this.seen.clear()
  }
}

/** Choruses with another; the sound of the last ones alone stays. */
export const withOne = (before: Chorus[], c: Chorus): Chorus[] => [
  ...before.map((old, i) => (i > before.length - held ? old : { ...old, sound: undefined })),
  c,
]

/** What is heard from a stretch, with its ticks counted from there. */
export const since = (from: number, notes: readonly (readonly [number, number])[]) =>
  notes.map(([at, midi]): [number, number] => [at - from, midi])

/** What of a chorus does not count for the player, in words; a simulated player stands in for the player in a plan. */
export const apart = ({ simulated, free }: Pick<Chorus, 'simulated' | 'free'>, planned: boolean) =>
  simulated
    ? planned
      ? 'A simulated player stood in for you: this counts as yours, since a plan is gone through.'
      : 'A simulated player played this: it is not noted in your log, and nothing of it counts.'
    : free.partial
      ? 'Counted as far as it was played; no ladder moves by it.'
      : undefined
