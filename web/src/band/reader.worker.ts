/*
 * Reads what the band is to play and decodes the samples it needs, so that
 * neither the page nor the audio thread has to.
 */
import { BasicSoundBank, SoundBankLoader } from 'spessasynth_core'
import { channels, players, type Delivery, type Read, type Request } from './messages'
import { readScore } from './score'
import type { Score } from './transport'

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
  const score = readScore(data.midi)
  needs(score)
  deliver({ score, id: data.id })
  const notes = score.events.filter((e) => (e.data[0]! & 0xf0) === 0x90 && e.data[2] && pitched.has(players[e.track]!))
  self.postMessage({
    id: data.id,
    notes: notes.map((e) => [e.at, e.data[1]!]),
    lead: notes.map((e) => players[e.track]!.startsWith('lead')),
    intro: score.intro ?? 0,
    pickup: score.pickup ?? 0,
  } satisfies Read)
  setTimeout(toneNotes)
}
