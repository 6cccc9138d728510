/* What files can be brought in as, and what one that is dropped or pasted anywhere most likely is. */

export type Kind = 'chart' | 'line' | 'licks'

/** What is said of each kind, and which files the picker shows. */
export const texts: Record<Kind, { header: string; about: string; accept: string }> = {
  chart: {
    header: 'Bring in charts',
    about: 'Chords as text or ChordPro (.txt, .cho, .chordpro), MusicXML with chord symbols, or a MIDI file of ours.',
    accept: '.txt,.cho,.chopro,.chordpro,.crd,.pro,.musicxml,.mxl,.xml,.mid,.midi',
  },
  line: {
    header: 'Bring in lines',
    about: 'MusicXML (.musicxml, .mxl, .xml), a MIDI file (.mid) or tablature as text (.txt): one voice of one guitar.',
    accept: '.musicxml,.mxl,.xml,.mid,.midi,.txt,.tab',
  },
  licks: {
    header: 'Bring in licks',
    about:
      'MusicXML, MIDI or tablature as text. What stands under headings, or between bars of silence, is a lick by itself.',
    accept: '.musicxml,.mxl,.xml,.mid,.midi,.txt,.tab',
  },
}

/** Where each kind is at home. */
const homes: Record<string, Kind> = {
  charts: 'chart',
  bench: 'chart',
  new: 'chart',
  edit: 'chart',
  lines: 'line',
  line: 'line',
  licks: 'licks',
  lick: 'licks',
}

/** A row of tablature: strokes with frets or nothing between bar lines, with or without the string's name. */
const row = /^\s*[A-Ga-g]?[b#♭♯]?\d?\s*[|:].*-{2,}/
const chord = /^[A-G][b#♭♯]?(?:m|maj|min|dim|aug|sus|add|°|ø|Δ|\+|-|\d|[b#♭♯(),/]|[A-G])*$/

/** Tells that a text is tablature. */
export const isTab = (text: string) => text.split(/\r\n?|\n/).filter((line) => row.test(line)).length >= 4

/** Tells that a text is chords: bars, a song sheet, or lines of nothing else. */
export function isChords(text: string) {
  const lines = text.split(/\r\n?|\n/).filter((line) => line.trim())
  if (lines.some((line) => /^\s*\{\s*(?:title|t|start_of|so[cvbg]|key)\b/.test(line))) return true
  const words = (line: string) => line.split(/[\s|:%./]+/).filter(Boolean)
  const bars = lines.filter((line) => (line.match(/\|/g)?.length ?? 0) >= 2 && words(line).some((w) => chord.test(w)))
  if (bars.length) return true
  return lines.filter((line) => words(line).length > 1 && words(line).every((w) => chord.test(w))).length >= 1
}

/**
 * What a file most likely is, by its name and its text: tablature and written music a line, or licks where one is among licks;
 * chords a chart. Nothing where it is neither, as far as can be seen.
 */
export function broughtAs(name: string, text: string, place: string): Kind | undefined {
  const home = homes[place]
  const music = home && home !== 'chart' ? home : 'line'
  if (/\.(?:cho|chopro|chordpro|crd|pro)$/i.test(name)) return 'chart'
  if (/\.(?:mid|midi|musicxml|mxl|xml)$/i.test(name) || /^MThd|^\s*<\?xml|^\s*<score-/.test(text)) return home ?? 'line'
  if (isTab(text) || /\.tab$/i.test(name)) return music
  return isChords(text) ? 'chart' : undefined
}
