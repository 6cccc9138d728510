/* What VexFlow is given for a stroke: its note on the staff, its figures on the tablature, its tuplets. */
import {
  Articulation,
  Bend,
  Dot,
  FretHandFinger,
  GhostNote,
  Modifier,
  Ornament,
  StaveNote,
  TabNote,
  Tuplet,
  Vibrato,
} from 'vexflow/bravura'
import type { Measure, Stroke, Written } from '../api/client'
import { key } from './breaking'

const bases: Record<number, string> = { 1: 'w', 2: 'h', 4: 'q', 8: '8', 16: '16', 32: '32' }
const bends = ['', '¼', '½', '¾', 'full', '1¼', '1½']

export function staffNote(s: Stroke, notes: Written[], bass: boolean, fingers: boolean): StaveNote {
  const rest = !s.notes.length
  const clef = bass ? 'bass' : 'treble'
  const keys = rest
    ? [bass ? 'd/3' : 'b/4']
    : notes.map((n) => {
        const k = key(n.note)
        return `${k.letter}${k.accidental}/${k.octave}${n.dead ? '/x2' : ''}`
      })
  const note = new StaveNote({
    keys,
    duration: bases[s.base]! + (s.dotted ? 'd' : '') + (rest ? 'r' : ''),
    clef,
    autoStem: true,
  })
  if (s.dotted) Dot.buildAndAttach([note], { all: true })
  notes.forEach((w, i) => {
    if (s.from) return
    if (fingers && w.finger)
      note.addModifier(new FretHandFinger(String(w.finger)).setPosition(Modifier.Position.LEFT), i)
    if (i === 0)
      for (const sign of w.signs?.filter((g) => g.kind === 'head') ?? [])
        note.addModifier(new Articulation(sign.text ?? '').setPosition(Modifier.Position.ABOVE))
    if (i === 0)
      for (const sign of w.signs?.filter((g) => g.kind === 'adorned') ?? [])
        note.addModifier(new Ornament(sign.text ?? ''))
    if (w.trill && i === 0) note.addModifier(new Ornament('tr'))
  })
  return note
}

export function tabNote(s: Stroke, notes: Written[]): TabNote | GhostNote {
  const duration = bases[s.base]! + (s.dotted ? 'd' : '')
  if (!s.notes.length || s.from) {
    const ghost = new GhostNote({ duration })
    if (s.dotted) Dot.buildAndAttach([ghost], { all: true })
    return ghost
  }
  const note = new TabNote({
    positions: notes.map((n) => ({ str: n.string, fret: n.dead ? 'X' : n.fret })),
    duration,
  })
  if (s.dotted) Dot.buildAndAttach([note], { all: true })
  notes.forEach((w, i) => {
    if (w.bend) {
      // What is bent before it is struck goes straight up; struck while bent, it stands in brackets.
      const before = w.preBend || w.again ? { width: 10, drawWidth: 0.01 } : {}
      const phrase = [{ type: Bend.UP, text: w.again ? `(${bends[w.bend]})` : bends[w.bend]!, ...before }]
      if (w.release) phrase.push({ type: Bend.DOWN, text: w.releaseTo ? bends[w.releaseTo]! : '' })
      note.addModifier(new Bend(phrase), i)
    }
    if (w.vibrato && i === 0) note.addModifier(new Vibrato(), 0)
  })
  return note
}

/** Both voices are squeezed into their tuplets; only the staff shows them. */
export function tupletsOf(m: Measure, written: StaveNote[], fretted: (TabNote | GhostNote)[]): Tuplet[] {
  const out: Tuplet[] = []
  for (const number of new Set(m.strokes.map((s) => s.tuplet ?? 0))) {
    if (!number) continue
    const inside = m.strokes.map((s, i) => ({ s, i })).filter(({ s }) => s.tuplet === number)
    const { actual, normal } = inside[0]!.s
    const options = { numNotes: actual!, notesOccupied: normal!, ratioed: false, bracketed: true }
    out.push(
      new Tuplet(
        inside.map(({ i }) => written[i]!),
        options,
      ),
    )
    new Tuplet(
      inside.map(({ i }) => fretted[i]!),
      options,
    )
  }
  return out
}
