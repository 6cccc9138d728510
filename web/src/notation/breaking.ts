/* How a score is broken into lines of music, and how tall each of them is; nothing is drawn here. */
import type { Measure, Score, Stroke, Written } from '../api/client'
import { notesOf } from '../document/study'

export interface System {
  top: number
  chords: number
  staffTop: number
  tabBottom: number
  degrees: number
  height: number
  /** from string to string */
  string: number
}

export const staffHeight = 40
/** Room for the name of a section, over the chords. */
const sectionHeight = 15

/** The room that each part takes: as it is read best, and where a whole chorus is to be in sight. */
export const usual = { chords: 30, above: 22, between: 44, string: 13, degrees: 28, foot: 42 }
export const dense = { chords: 26, above: 12, between: 22, string: 11, degrees: 21, foot: 40 }
export type Room = typeof usual

export interface Placed {
  measure: Measure
  width: number
}

/** Staff notes are written an octave above their sound, as guitar music is. */
export function key(note: string): { letter: string; accidental: string; octave: number } {
  const m = /^([A-G])([b#]*)(-?\d)$/.exec(note)!
  return { letter: m[1]!.toLowerCase(), accidental: m[2]!, octave: Number(m[3]) + 1 }
}

/** Key signatures by their major key, from seven flats to seven sharps. */
export const signatures = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#']

/** Steps of the scale above the bottom line. */
export function line(note: string, bass: boolean): number {
  const k = key(note)
  return k.octave * 7 + 'cdefgab'.indexOf(k.letter) - (bass ? 2 * 7 + 4 : 4 * 7 + 2)
}

/** The notes of a stroke. */
export const heads = (score: Score, s: Stroke): Written[] => s.notes.map((id) => notesOf(score).get(id)!)

/** Whether a bar has another metre than the one before it. */
export function changes(score: Score, m: Measure): boolean {
  const before = score.measures[score.measures.indexOf(m) - 1]
  return !!before && before.beats !== m.beats
}

export function wants(m: Measure, score: Score): number {
  const strokes = m.strokes.reduce((sum, s) => {
    const notes = heads(score, s)
    const sharp = notes.some((n) => /[b#]/.test(n.note))
    const bent = notes.some((n) => n.bend || n.vibrato)
    return sum + 26 + (sharp ? 7 : 0) + (bent ? 16 : 0) + (s.base <= 2 ? 14 : 0)
  }, 0)
  return Math.max(96, strokes + 30, m.chords.length * 58) + (changes(score, m) ? 24 : 0)
}

/** Breaks the measures into lines: where a line is wished for, and evenly where the paper is too narrow for it. */
export function lines(score: Score, width: number): Placed[][] {
  const room = width - 78 - Math.abs(score.signature) * 10
  const wished: Placed[][] = []
  for (const measure of score.measures) {
    const row = wished.at(-1)
    const begins = measure.row && row?.some((p) => p.measure.number > 0)
    const placed = { measure, width: wants(measure, score) }
    if (!row || begins) wished.push([placed])
    else row.push(placed)
  }
  return wished.flatMap((row) => {
    for (let n = 1; ; n++) {
      const parts: Placed[][] = []
      for (let k = 0; k < n; k++)
        parts.push(row.slice(Math.round((k * row.length) / n), Math.round(((k + 1) * row.length) / n)))
      const fits = parts.every((p) => p.length < 2 || p.reduce((sum, m) => sum + m.width, 0) <= room)
      if (fits || n >= row.length) return parts.filter((p) => p.length)
    }
  })
}

export const tab = (score: Score, room: Room) => (score.strings - 1) * room.string

const strokes = (row: Placed[]) => row.flatMap((p) => p.measure.strokes)

/** All that the drawing of a line of music depends on. */
export function keyOf(
  score: Score,
  row: Placed[],
  of: { first: boolean; last: boolean; width: number; fingers: boolean; close: boolean },
) {
  const notes = strokes(row).flatMap((s) =>
    heads(score, s).map((n) => ({ ...n, does: undefined, before: n.join && n.before })),
  )
  const measures = row.map(({ measure: m, width }) => [
    m.number,
    m.start,
    width,
    m.beats,
    changes(score, m),
    m.chords,
    m.strokes,
  ])
  const end = score.measures.at(-1)?.number
  return JSON.stringify([score.signature, score.strings, score.bass, end, of, measures, notes])
}

/** How tall a line of music is, and where its parts lie. */
export function systemOf(score: Score, row: Placed[], space: Room): System {
  const lines = strokes(row).flatMap((s) => heads(score, s).map((n) => line(n.note, score.bass)))
  const highest = Math.max(0, ...lines)
  const lowest = Math.min(0, ...lines)
  // A tuplet's figure takes room of its own, on the side of the stems; so does a second beam.
  const has = (what: (s: Stroke) => unknown) => strokes(row).some(what)
  const tuplets = has((s) => s.tuplet)
  const named = has((s) => heads(score, s).some((n) => n.named))
  // Strokes, accents and ornaments stand over each other above the notes.
  const over = (n: Written) => (n.signs ?? []).filter((g) => g.kind === 'head' || g.kind === 'adorned').length
  const signs = Math.max(0, ...strokes(row).flatMap((s) => heads(score, s).map((n) => over(n) + (n.trill ? 1 : 0))))
  const room = Math.max(14, (highest - 8) * 5 + space.above) + (tuplets ? 14 : 0) + (named ? 18 : 0) + signs * 12
  const below = Math.max(space.between, -lowest * 5 + 32) + (tuplets ? 20 : has((s) => s.base > 8) ? 10 : 0)
  const stacked = Math.max(1, ...strokes(row).map((s) => s.notes.length)) - 1
  const top = space.chords + (row.some((p) => p.measure.section) ? sectionHeight : 0)
  const staffTop = top + room
  const tabBottom = staffTop + staffHeight + below + tab(score, space)
  return {
    top: 0,
    chords: top - 8,
    staffTop,
    tabBottom,
    degrees: tabBottom + space.degrees,
    height: tabBottom + space.foot + stacked * 22,
    string: space.string,
  }
}
