/* The band into a file, as quickly as it can be reckoned: the same synthesiser and clock as on the audio thread. */
import { BasicSoundBank } from 'spessasynth_core'
import type { Writing, Written } from './messages'
import { readScore } from './score'
import { block, Synth } from './synth'
import { Wav } from './wav'

const rate = 44100
const piece = 32 * block
/** Behind the last note it rings until so long nothing louder was heard; at the longest so many seconds. */
const quiet = 4e-4
const calm = 0.5
const longest = 6
/** No file is longer, in seconds. */
const limit = 30 * 60

function tell(w: Written, transfer: Transferable[] = []) {
  self.postMessage(w, { transfer })
}

self.onmessage = async ({ data }: MessageEvent<Writing>) => {
  try {
    await BasicSoundBank.isSF3DecoderReady
    const score = readScore(data.midi)
    const tempo = data.tempo ?? score.tempo ?? 100
    const seconds = ((score.end + score.countIn) / score.beat) * (60 / tempo)
    if (seconds > limit) {
      tell({ why: `This would last ${Math.round(seconds / 60)} minutes; at most ${limit / 60} can be written.` })
      return
    }
    const synth = new Synth(rate, () => {})
    await synth.open(data.bank)
    for (const [player, level] of Object.entries(data.levels)) synth.level(player, level)
    const { transport } = synth
    transport.once = true
    transport.load(score, 0)
    transport.start(0, 0, tempo, undefined, score.countIn > 0 ? 'bar' : 'none')
    const wav = new Wav(rate)
    const [left, right] = [new Float32Array(piece), new Float32Array(piece)]
    let still = 0
    let ringing = 0
    for (let frame = 0; transport.playing || (still < calm && ringing < longest); frame += piece) {
      for (let i = 0; i < piece; i += block)
        synth.fill(frame + i, left.subarray(i, i + block), right.subarray(i, i + block))
      wav.add(left, right)
      if (!transport.playing) {
        ringing += piece / rate
        still = left.some((x, i) => Math.max(Math.abs(x), Math.abs(right[i]!)) > quiet) ? 0 : still + piece / rate
      }
      if (!((frame / piece) % 16)) tell({ part: Math.min(1, wav.seconds / (seconds + 1)) })
    }
    wav.fade(still < calm ? 1 : 0.02)
    const file = wav.file()
    tell({ wav: file }, [file])
  } catch (e) {
    tell({ why: `The sound could not be written (${e instanceof Error ? e.message : String(e)}).` })
  }
}
