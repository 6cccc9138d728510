/* Plays strokes on an instrument of a General MIDI sound bank that the product does not use: a source that nothing was tuned
 * by. Told on the command line: the bank, the program from 0, the rate, the seconds, and the file that
 * what sounds is written to as 32-bit floats; on the input the strokes, as JSON. */
import { readFileSync, writeFileSync } from 'node:fs'
import { argv } from 'node:process'
import { SoundBankLoader, SpessaSynthProcessor } from 'spessasynth_core'

interface Stroke {
  At: number
  Length: number
  MIDI: number
}
const [path, program, rate, seconds] = [argv[2]!, Number(argv[3]), Number(argv[4]), Number(argv[5])]
const strokes = JSON.parse(readFileSync(0, 'utf8')) as Stroke[]
const synth = new SpessaSynthProcessor(rate, { eventsEnabled: false, initialTime: 0 })
await synth.processorInitialized
synth.soundBankManager.addSoundBank(SoundBankLoader.fromArrayBuffer(readFileSync(path).buffer as ArrayBuffer), 'font')
for (const gain of ['reverbGain', 'chorusGain', 'delayGain'] as const) synth.setSystemParameter(gain, 0)
synth.programChange(0, program)
const frame = (s: number) => Math.round(s * rate)
const events = strokes
  .flatMap((n, i) => [
    { at: frame(n.At), on: true, midi: n.MIDI, velocity: 84 + ((i * 37) % 24) },
    { at: frame(n.At + n.Length) - 1, on: false, midi: n.MIDI, velocity: 0 },
  ])
  .toSorted((a, b) => a.at - b.at || Number(a.on) - Number(b.on))
const out = new Float32Array(frame(seconds))
const right = new Float32Array(out.length)
for (let at = 0; at < out.length;) {
  while (events.length && events[0]!.at <= at) {
    const e = events.shift()!
    if (e.on) synth.noteOn(0, e.midi, e.velocity)
    else synth.noteOff(0, e.midi)
  }
  const count = Math.min(128, out.length - at, (events[0]?.at ?? Infinity) - at)
  synth.process(out, right, at, count)
  at += count
}
for (let i = 0; i < out.length; i++) out[i] = (out[i]! + right[i]!) / 2
writeFileSync(argv[6]!, new Uint8Array(out.buffer))
