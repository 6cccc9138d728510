/* Plays a MIDI file on a General MIDI sound bank that the product does not use, and writes it as a WAV: `band BANK OUT TEMPO [PLAYER=LEVEL …]`,
 * with the MIDI file on the input. */
import { readFileSync, writeFileSync } from 'node:fs'
import { argv } from 'node:process'
import { BasicSoundBank } from 'spessasynth_core'
import { readScore } from '../src/band/score'
import { block, Synth } from '../src/band/synth'
import { Wav } from '../src/band/wav'

const rate = 44100
await BasicSoundBank.isSF3DecoderReady
const midi = readFileSync(0)
const score = readScore(midi.buffer.slice(midi.byteOffset, midi.byteOffset + midi.length) as ArrayBuffer)
const synth = new Synth(rate, () => {})
const bank = readFileSync(argv[2]!)
await synth.open(bank.buffer.slice(bank.byteOffset, bank.byteOffset + bank.length) as ArrayBuffer)
for (const told of argv.slice(5)) {
  const [player, level] = told.split('=')
  synth.level(player!, Number(level))
}
const { transport } = synth
transport.once = true
transport.load(score, 0)
transport.start(0, 0, Number(argv[4]), undefined, score.countIn > 0)
const wav = new Wav(rate)
const piece = 32 * block
const [left, right] = [new Float32Array(piece), new Float32Array(piece)]
for (let frame = 0; transport.playing; frame += piece) {
  for (let i = 0; i < piece; i += block)
    synth.fill(frame + i, left.subarray(i, i + block), right.subarray(i, i + block))
  wav.add(left, right)
}
writeFileSync(argv[3]!, new Uint8Array(wav.file()))
