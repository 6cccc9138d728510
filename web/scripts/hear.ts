/* Tells what the ear notices in files of sound (WAV, 16 bits, one channel): a line of JSON for each file. */
import { readFileSync } from 'node:fs'
import { argv } from 'node:process'
import { Ear, hop } from '../src/listen/ear/ear'

for (const path of argv.slice(2)) {
  const data = readFileSync(path)
  const rate = data.readUInt32LE(24)
  const sound = Float32Array.from({ length: (data.length - 44) / 2 }, (_, i) => data.readInt16LE(44 + 2 * i) / 32768)
  const ear = new Ear(rate)
  const heard = []
  for (let at = 0; at + hop <= sound.length; at += hop) heard.push(...ear.hear(sound.subarray(at, at + hop)))
  console.log(JSON.stringify(heard))
}
