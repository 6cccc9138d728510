/* Tells what the page measures and hears of a recording (WAV, 16 bits), as JSON: `record FILE LOWEST HIGHEST`; without notes it hears none. */
import { readFileSync } from 'node:fs'
import { argv } from 'node:process'
import { listen } from '../src/recording/listening'
import { measure } from '../src/recording/measure'
import { Tape } from '../src/recording/tape'

const data = readFileSync(argv[2]!)
const [channels, rate] = [data.readUInt16LE(22), data.readUInt32LE(24)]
const frames = Math.floor((data.length - 44) / 2 / channels)
const tape = new Tape(rate, channels > 1 ? 2 : 1)
tape.add(
  Array.from({ length: channels }, (_, c) =>
    Float32Array.from({ length: frames }, (_, i) => data.readInt16LE(44 + 2 * (i * channels + c)) / 32768),
  ),
)
const source = { rate, length: tape.length, mono: (from: number, into: Float32Array) => tape.mono(from, into) }
const m = measure(source)
const text = (bytes: Uint8Array) => Buffer.from(bytes).toString('base64')
const compass: [number, number] = [Number(argv[3]), Number(argv[4])]
console.log(
  JSON.stringify({
    seconds: tape.seconds,
    measured: {
      ...m,
      onsets: text(m.onsets),
      low: text(m.low),
      high: text(m.high),
      tones: text(m.tones),
      bass: text(m.bass),
    },
    noticed: argv[3] ? listen(source, 0, tape.seconds, compass) : [],
  }),
)
