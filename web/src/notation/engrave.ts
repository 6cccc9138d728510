/*
 * Staff and tablature, engraved by VexFlow. What is to be written comes from the
 * core, bar by bar; here it is only drawn, and told where everything came to lie.
 */
import {
  Accidental,
  Beam,
  Formatter,
  Fraction,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  StaveTie,
  TabNote,
  TabSlide,
  TabStave,
  TabTie,
  Voice,
  type Note,
  type RenderContext,
  type StemmableNote,
} from 'vexflow/bravura'
import type { Measure, Score, Stroke, Written } from '../api/client'
import { notesOf } from '../document/study'
import { key, staffNote, tabNote, tupletsOf } from './written'

/** Where a written note lies: x in the middle of its head, y on the staff and on the tablature. */
export interface Spot {
  note: Written
  x: number
  staff: number
  tab: number
  /** 0 is the top note of a double stop */
  stack: number
}

export interface Box {
  measure: number
  start: number
  /** the tick on which it is over */
  stop: number
  x: number
  width: number
  /** where its first note stands, and where its last ends */
  from: number
  to: number
}

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

/** A line of music as it was drawn, counted from its own top. One that did not change stays the same object. */
export interface Row {
  /** by itself, so that paper can break between lines */
  drawing: HTMLElement
  at: System
  strings: number
  spots: Spot[]
  boxes: Box[]
  symbols: { x: number; y: number; text: string }[]
  sections: { x: number; text: string }[]
}

export interface Layout {
  rows: Row[]
  /** The rows by what they were drawn from. */
  known: Map<string, Row>
}

const majors = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#']
const staffHeight = 40
/** Room for the name of a section, over the chords. */
const sectionHeight = 15

/** The room that each part takes: as it is read best, and where a whole chorus is to be in sight. */
const usual = { chords: 30, above: 22, between: 44, string: 13, degrees: 28, foot: 42 }
const dense = { chords: 26, above: 12, between: 22, string: 11, degrees: 21, foot: 40 }
type Room = typeof usual

interface Placed {
  measure: Measure
  width: number
}

/** Steps of the scale above the bottom line. */
function line(note: string, bass: boolean): number {
  const k = key(note)
  return k.octave * 7 + 'cdefgab'.indexOf(k.letter) - (bass ? 2 * 7 + 4 : 4 * 7 + 2)
}

/** The notes of a stroke. */
const heads = (score: Score, s: Stroke): Written[] => s.notes.map((id) => notesOf(score).get(id)!)

/** Whether a bar has another metre than the one before it. */
function changes(score: Score, m: Measure): boolean {
  const before = score.measures[score.measures.indexOf(m) - 1]
  return !!before && before.beats !== m.beats
}

function wants(m: Measure, score: Score): number {
  const strokes = m.strokes.reduce((sum, s) => {
    const notes = heads(score, s)
    const sharp = notes.some((n) => /[b#]/.test(n.note))
    const bent = notes.some((n) => n.bend || n.vibrato)
    return sum + 26 + (sharp ? 7 : 0) + (bent ? 16 : 0) + (s.base <= 2 ? 14 : 0)
  }, 0)
  return Math.max(96, strokes + 30, m.chords.length * 58) + (changes(score, m) ? 24 : 0)
}

/** Breaks the measures into lines: where a line is wished for, and evenly where the paper is too narrow for it. */
function lines(score: Score, width: number): Placed[][] {
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

const tab = (score: Score, room: Room) => (score.strings - 1) * room.string

const strokes = (row: Placed[]) => row.flatMap((p) => p.measure.strokes)

/** All that the drawing of a line of music depends on. */
function keyOf(
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

/** Engraves a score. Of what was drawn before, the lines of music that did not change are taken over. */
export function draw(score: Score, width: number, how: { fingers: boolean; close: boolean }, before?: Layout): Layout {
  const rows = lines(score, width)
  const layout: Layout = { rows: [], known: new Map() }
  rows.forEach((row, system) => {
    const key = keyOf(score, row, { first: system === 0, last: system === rows.length - 1, width, ...how })
    const drawn = before?.known.get(key) ?? drawRow(score, row, system, rows.length, width, how)
    layout.known.set(key, drawn)
    layout.rows.push(drawn)
  })
  return layout
}

/** How tall a line of music is, and where its parts lie. */
function systemOf(score: Score, row: Placed[], space: Room): System {
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

function drawRow(
  score: Score,
  row: Placed[],
  index: number,
  rows: number,
  width: number,
  how: { fingers: boolean; close: boolean },
): Row {
  const space = how.close ? dense : usual
  const at = systemOf(score, row, space)
  const drawing = document.createElement('div')
  const renderer = new Renderer(drawing, Renderer.Backends.SVG)
  renderer.resize(width, at.height)
  const svg = drawing.querySelector('svg')!
  svg.setAttribute('viewBox', `0 0 ${width} ${at.height}`)
  for (const side of ['width', 'height', 'style']) svg.removeAttribute(side)
  const context = renderer.getContext()
  const out: Row = { drawing, at, strings: score.strings, spots: [], boxes: [], symbols: [], sections: [] }
  const drawn = new Map<number, Drawn>()
  system(context, score, row, index, rows, width, how.fingers, space, out, drawn)
  joins(context, score, drawn)
  return out
}

interface Drawn {
  tab?: Note
  index: number
  staff: StaveNote
}

function system(
  context: RenderContext,
  score: Score,
  row: Placed[],
  index: number,
  rows: number,
  width: number,
  fingers: boolean,
  space: Room,
  layout: Row,
  drawn: Map<number, Drawn>,
) {
  const at = layout.at
  const signature = majors[score.signature + 7]!
  const head = 70 + Math.abs(score.signature) * 10 + (index === 0 ? 22 : 0)
  const wanted = row.reduce((sum, p) => sum + p.width, 0)
  // The last line keeps its natural width unless it is nearly full.
  const room = width - head - 2
  const short = index === rows - 1 && row.length < 4 && wanted < room * 0.6
  const stretch = short ? Math.min(room / wanted, 1.5) : room / wanted
  let x = 1
  let tiedFrom: { staff: StaveNote; notes: number[] } | undefined
  row.forEach((p, i) => {
    const w = p.width * stretch + (i === 0 ? head : 0)
    const stave = new Stave(x, at.staffTop - 40, w, { leftBar: i > 0 ? false : true })
    const tabs = new TabStave(x, at.tabBottom - tab(score, space) - 4 * space.string, w, {
      numLines: score.strings,
      leftBar: i === 0,
      spacingBetweenLinesPx: space.string,
    })
    if (i === 0) {
      stave.addClef(score.bass ? 'bass' : 'treble', 'default', '8vb').addKeySignature(signature)
      if (index === 0) stave.addTimeSignature(`${p.measure.beats}/4`)
      tabs.addTabGlyph()
    }
    if (changes(score, p.measure)) stave.addTimeSignature(`${p.measure.beats}/4`)
    if (p.measure.number === score.measures.at(-1)?.number) {
      stave.setEndBarType(3)
      tabs.setEndBarType(3)
    }
    const from = Math.max(stave.getNoteStartX(), tabs.getNoteStartX())
    stave.setNoteStartX(from)
    tabs.setNoteStartX(from)
    stave.setContext(context).draw()
    tabs.setContext(context).draw()
    if (i === 0) new StaveConnector(stave, tabs).setType('singleLeft').setContext(context).draw()
    const written = p.measure.strokes.map((s) => staffNote(s, heads(score, s), score.bass, fingers))
    const fretted = p.measure.strokes.map((s) => tabNote(s, heads(score, s)))
    const tuplets = tupletsOf(p.measure, written, fretted)
    const voices = [written, fretted].map((list) =>
      new Voice({ numBeats: p.measure.beats, beatValue: 4 }).setMode(Voice.Mode.SOFT).addTickables(list),
    )
    Accidental.applyAccidentals([voices[0]!], signature)
    const beams = Beam.generateBeams(written.filter((n): n is StaveNote => n instanceof StaveNote) as StemmableNote[], {
      groups: [new Fraction(1, 4)],
    })
    const formatter = new Formatter()
    formatter.joinVoices([voices[0]!]).joinVoices([voices[1]!])
    formatter.format(voices, Math.max(40, x + w - from - 18))
    voices[0]!.draw(context, stave)
    voices[1]!.draw(context, tabs)
    for (const b of beams) b.setContext(context).draw()
    for (const t of tuplets) t.setContext(context).draw()
    const xs = written.map((n) => n.getAbsoluteX() + 6)
    const end = x + w
    layout.boxes.push({
      measure: p.measure.number,
      start: p.measure.start,
      stop: p.measure.number ? p.measure.start + p.measure.beats * 960 : 0,
      x,
      width: w,
      from: xs[0] ?? from,
      to: end,
    })
    p.measure.strokes.forEach((s, k) => {
      const staff = written[k]!
      if (s.from && tiedFrom)
        new StaveTie({
          firstNote: tiedFrom.staff,
          lastNote: staff,
          firstIndexes: s.notes.map((_, n) => n),
          lastIndexes: s.notes.map((_, n) => n),
        })
          .setContext(context)
          .draw()
      else if (s.from)
        new StaveTie({ lastNote: staff, firstIndexes: s.notes.map((_, n) => n), lastIndexes: s.notes.map((_, n) => n) })
          .setContext(context)
          .draw()
      tiedFrom = s.to ? { staff: staff as StaveNote, notes: s.notes } : undefined
      if (s.from || !s.notes.length) return
      s.notes.forEach((note, n) => {
        drawn.set(note, { tab: fretted[k], index: n, staff: staff as StaveNote })
        layout.spots.push({
          note: notesOf(score).get(note)!,
          x: xs[k]!,
          staff: (staff as StaveNote).getYs()[n]!,
          tab: at.tabBottom - tab(score, space) + (notesOf(score).get(note)!.string - 1) * space.string,
          stack: s.notes.length - 1 - n,
        })
      })
    })
    const beat = (b: number) => {
      const tick = b * 960
      const k = p.measure.strokes.findIndex((s) => s.at >= tick)
      if (k >= 0 && p.measure.strokes[k]!.at === tick) return xs[k]! - 8
      return xs[0]! - 8 + ((end - xs[0]!) * b) / p.measure.beats
    }
    if (p.measure.section) layout.sections.push({ x: xs[0]! - 8, text: p.measure.section })
    for (const c of p.measure.chords)
      layout.symbols.push({ x: c.beat === 0 ? xs[0]! - 8 : beat(c.beat), y: at.chords, text: c.symbol })
    x += w
  })
}

/** Hammer-ons, pull-offs and slides, from note to note on a string. */
function joins(context: RenderContext, score: Score, drawn: Map<number, Drawn>) {
  const written = notesOf(score)
  drawn.forEach((to, id) => {
    const n = written.get(id)!
    const from = n.before && drawn.get(n.before)
    if (!n.join || !from) return
    const notes = {
      firstNote: from.tab as TabNote,
      lastNote: to.tab as TabNote,
      firstIndexes: [from.index],
      lastIndexes: [to.index],
    }
    const up = n.midi > written.get(n.before!)!.midi
    const tie =
      n.join === 'slide'
        ? up
          ? TabSlide.createSlideUp(notes)
          : TabSlide.createSlideDown(notes)
        : n.join === 'hammer-on'
          ? TabTie.createHammeron(notes)
          : TabTie.createPulloff(notes)
    tie.setContext(context).draw()
  })
}
