/*
 * Reads what the band is to play and decodes the samples it needs, so that
 * neither the page nor the audio thread has to.
 */
import { BasicMIDI, BasicSoundBank, SoundBankLoader } from 'spessasynth_core'
import { channels, players, type Delivery, type Read, type Request } from './messages'
import { order, type Score } from './transport'

let bank: BasicSoundBank | undefined
let samples: MessagePort
const pitched = new Set(players.filter((p) => !channels[p]!.drum))
const sent = new Set<number>()

function deliver(d: Delivery, transfer: Transferable[] = []) {
  samples.postMessage(d, transfer)
}

function preset(program: number, drum: boolean) {
  return bank!.presets.find((p) => (drum ? p.isGMGSDrum : !p.isGMGSDrum && p.program === program))
}

/** Sends the samples of a note, unless they are there already. */
function send(program: number, drum: boolean, midi: number, velocity: number) {
  for (const { sample } of preset(program, drum)?.getVoiceParameters(midi, velocity) ?? []) {
    const index = bank!.samples.indexOf(sample)
    if (sent.has(index)) continue
    sent.add(index)
    const data = sample.getAudioData()
    deliver({ sample: index, rate: sample.sampleRate, data })
  }
}

function read(file: ArrayBuffer): Score {
  const midi = BasicMIDI.fromArrayBuffer(file)
  const score: Score = { events: [], end: 0, countIn: 0, metres: [], beat: midi.timeDivision }
  for (const track of midi.tracks) {
    const number = players.indexOf(track.name)
    for (const e of track.events) {
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
  const leads = players.flatMap((name, i) => (name.startsWith('lead') ? [i] : []))
  score.pickup = score.events.some((e) => e.at < 0 && leads.includes(e.track) && (e.data[0]! & 0xf0) === 0x90)
  return score
}

function needs(score: Score) {
  const program = players.map(() => 0)
  for (const e of score.events) {
    if ((e.data[0]! & 0xf0) === 0xc0) program[e.track] = e.data[1]!
    else if ((e.data[0]! & 0xf0) === 0x90)
      send(program[e.track]!, !!channels[players[e.track]!]!.drum, e.data[1]!, e.data[2]!)
  }
}

/** The notes a player may try by hand: two octaves more than a neck has. */
let rest = 36
function toneNotes() {
  if (rest > 96) return
  send(channels.tone!.program!, false, rest, 100)
  rest += 3
  setTimeout(toneNotes)
}

self.onmessage = async ({ data }: MessageEvent<Request>) => {
  if ('bank' in data) {
    await BasicSoundBank.isSF3DecoderReady
    bank = SoundBankLoader.fromArrayBuffer(data.bank)
    samples = data.samples
    return
  }
  while (!bank) await new Promise((r) => setTimeout(r, 5))
  const score = read(data.midi)
  needs(score)
  deliver({ score, id: data.id })
  const notes = score.events.filter((e) => (e.data[0]! & 0xf0) === 0x90 && e.data[2] && pitched.has(players[e.track]!))
  self.postMessage({ id: data.id, notes: notes.map((e) => [e.at, e.data[1]!]) } satisfies Read)
  setTimeout(toneNotes)
}
