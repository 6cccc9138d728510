/* A MIDI file as the band's clock reads it. */
import { BasicMIDI } from 'spessasynth_core'
import { players } from './messages'
import { order, type Score } from './transport'

const said = (data: Uint8Array) => String.fromCharCode(...data)

export function readScore(file: ArrayBuffer): Score {
  const midi = BasicMIDI.fromArrayBuffer(file)
  const score: Score = { events: [], end: 0, countIn: 0, metres: [], beat: midi.timeDivision }
  for (const track of midi.tracks) {
    const number = players.indexOf(track.name)
    for (const e of track.events) {
      if (e.statusByte === 0x51 && !score.tempo)
        score.tempo = 60_000_000 / ((e.data[0]! << 16) | (e.data[1]! << 8) | e.data[2]!)
      if (e.statusByte === 0x58) score.metres.push({ at: e.ticks, bar: (e.data[0] ?? 4) * midi.timeDivision })
      if (e.statusByte === 0x2f) score.end = Math.max(score.end, e.ticks)
      if (number >= 0 && e.statusByte >= 0x80 && e.statusByte < 0xf0)
        score.events.push({ at: e.ticks, track: number, data: [e.statusByte, ...e.data] })
    }
  }
  if (!score.metres.length) score.metres.push({ at: 0, bar: 4 * midi.timeDivision })
  if (midi.tracks.some((t) => t.name === 'count-in')) score.countIn = score.metres[0]!.bar
  score.events.sort((a, b) => a.at - b.at || order(a) - order(b))
  for (const e of [...score.events, ...score.metres]) e.at -= score.countIn
  score.end -= score.countIn
  const top = midi.tracks.flatMap((t) => t.events).find((e) => e.statusByte === 0x06 && said(e.data) === 'chorus 1')
  if (top) score.intro = Math.max(0, top.ticks - score.countIn)
  const before = score.intro ?? 0
  for (const e of [...score.events, ...score.metres]) e.at -= before
  score.end -= before
  score.countIn += before
  score.sticks = players.indexOf('count-in')
  score.pickup = pickupOf(score)
  countTwice(score)
  return score
}

/** A further bar of sticks before the one that is written, in half notes, as it is counted: one, two, one two three four. */
function countTwice(score: Score) {
  if (!score.countIn) return
  const bar = score.metres[0]!.bar
  const beats = bar / score.beat
  const counted = (e: { at: number }) => {
    const beat = Math.floor((e.at + score.countIn) / score.beat)
    return beat >= 0 && beat < beats && beat % (beats % 2 ? beats : 2) === 0
  }
  const more = score.events.filter((e) => e.track === score.sticks && (e.data[0]! & 0xe0) === 0x80 && counted(e))
  score.events.unshift(...more.map((e) => ({ ...e, at: e.at - bar })))
  score.events.sort((a, b) => a.at - b.at || order(a) - order(b))
  score.metres[0]!.at -= bar
  score.before = bar
}

/** How long the pickup is, in whole beats as ticks: over an intro only a lead has one of its own. */
function pickupOf(score: Score): number {
  const led = players.flatMap((name, i) =>
    name.startsWith('lead') || (!score.intro && ['bass', 'chords'].includes(name)) ? [i] : [],
  )
  const first = score.events.find((e) => e.at < 0 && led.includes(e.track) && (e.data[0]! & 0xf0) === 0x90)
  return first ? Math.ceil(-first.at / score.beat) * score.beat : 0
}
