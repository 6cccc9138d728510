/* Tells what the ear notices in a file of sound (WAV, 16 bits, one channel), as JSON; beside the file the lowest and the
 * highest note may be told that there are, as the page tells them of the instrument in hand. */
import { readFileSync } from 'node:fs'
import { argv } from 'node:process'
import { Ear, hop } from '../src/listen/ear/ear'

const data = readFileSync(argv[2]!)
const rate = data.readUInt32LE(24)
const sound = Float32Array.from({ length: (data.length - 44) / 2 }, (_, i) => data.readInt16LE(44 + 2 * i) / 32768)
const told = (i: number) => (argv[i] ? Number(argv[i]) : undefined)
const ear = new Ear(rate, undefined, told(3), told(4))
const heard = []
for (let at = 0; at + hop <= sound.length; at += hop) heard.push(...ear.hear(sound.subarray(at, at + hop)))
console.log(JSON.stringify(heard))
