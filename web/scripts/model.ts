/* Tells what the model hears in a recording (WAV, 16 bits), as JSON: `model FILE`. */
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname } from 'node:path'
import { argv } from 'node:process'
import { setBackend } from '@tensorflow/tfjs-core'
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm'
import { hear, openModel } from '../src/recording/model'
import { modelRate } from '../src/recording/modelRate'

const require = createRequire(import.meta.url)
const at = dirname(require.resolve('@spotify/basic-pitch/package.json'))
setWasmPaths(`${dirname(require.resolve('@tensorflow/tfjs-backend-wasm/package.json'))}/wasm-out/`)
await setBackend('wasm')
const bin = readFileSync(`${at}/model/group1-shard1of1.bin`)
const model = await openModel(JSON.parse(readFileSync(`${at}/model/model.json`, 'utf8')), bin.buffer.slice(bin.byteOffset, bin.byteOffset + bin.length) as ArrayBuffer) // prettier-ignore
const data = readFileSync(argv[2]!)
const [channels, rate] = [data.readUInt16LE(22), data.readUInt32LE(24)]
const frames = Math.floor((data.length - 44) / 2 / channels)
const mono = (i: number) => {
  let sum = 0
  for (let c = 0; c < channels; c++) sum += data.readInt16LE(44 + 2 * (i * channels + c)) / 32768
  return sum / channels
}
// Half of 44100 is the model's rate: two samples are one.
const by = rate / modelRate
const samples = Float32Array.from({ length: Math.floor(frames / by) }, (_, i) => (mono(Math.floor(i * by)) + mono(Math.min(frames - 1, Math.floor(i * by) + 1))) / 2) // prettier-ignore
const begun = performance.now()
const notes = await hear(model, samples)
console.error(`${Math.round(performance.now() - begun)} ms`)
console.log(JSON.stringify(notes))
