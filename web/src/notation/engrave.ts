/*
 * Staff and tablature, engraved by VexFlow. What is to be written comes from the
 * core, bar by bar; here it is only drawn, and told where everything came to lie.
 */
import { quarter } from '../api/facts'
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
import type { Score, Written } from '../api/client'
import { notesOf } from '../document/study'
import {
  changes,
  dense,
  heads,
  keyOf,
  lines,
  signatures,
  systemOf,
  tab,
  usual,
  type Placed,
  type Room,
  type System,
} from './breaking'
import { staffNote, tabNote, tupletsOf } from './written'

export type { System }

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
  const signature = signatures[score.signature + 7]!
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
      stop: p.measure.number ? p.measure.start + p.measure.beats * quarter : 0,
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
      const tick = b * quarter
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
