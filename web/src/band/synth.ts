/* The synthesiser with the band's clock: what sounds, block by block, on the audio thread and where it is written to a file. */
import { SoundBankLoader, SpessaSynthProcessor, type BasicSoundBank } from 'spessasynth_core'
import { channels, players } from './messages'
import { Transport, type Anchor } from './transport'

/** Frames that are rendered at once, and at most asked for. */
export const block = 128
const room = 4 * block

export class Synth {
  /** Sound that is rendered and not yet heard. */
  private readonly ahead: [Float32Array, Float32Array] = [new Float32Array(room), new Float32Array(room)]
  /** Of that, what the simulated player plays. */
  private readonly alone: [Float32Array, Float32Array] = [new Float32Array(room), new Float32Array(room)]
  private readonly outputs = Array.from({ length: 16 }, (_, channel) =>
    channel === channels.player!.channel ? this.alone : this.ahead,
  )
  private ready = 0
  private readonly processor: SpessaSynthProcessor
  bank?: BasicSoundBank
  readonly transport: Transport

  constructor(rate: number, told: (a: Anchor) => void, over?: () => void) {
    this.processor = new SpessaSynthProcessor(rate, { eventsEnabled: false, initialTime: 0 })
    this.transport = new Transport(rate, (e) => this.play(players[e.track]!, e.data), told, over)
  }

  async open(bank: ArrayBuffer) {
    await this.processor.processorInitialized
    this.bank = SoundBankLoader.fromArrayBuffer(bank)
    this.processor.soundBankManager.addSoundBank(this.bank, 'band')
    // Chorus and the reverb's own sway drift, so that no two passes of a loop would sound the same.
    this.processor.setSystemParameter('chorusGain', 0)
    this.processor.setSystemParameter('reverbGain', 0.5)
    const hall = this.processor.reverbProcessor as { dattorro?: { excursionDepth: number } }
    if (hall.dattorro) hall.dattorro.excursionDepth = 0
    for (const { channel, drum, program } of Object.values(channels)) {
      if (drum) this.processor.midiChannels[channel]!.setDrums(true)
      this.processor.programChange(channel, program ?? 0)
    }
  }

  play(player: string, data: number[]) {
    this.processor.processMessage([(data[0]! & 0xf0) | (channels[player]!.channel % 16), ...data.slice(1)])
  }

  level(player: string, level: number) {
    this.processor.midiChannels[channels[player]!.channel]!.setSystemParameter('gain', level)
  }

  silence(atOnce: boolean) {
    this.processor.stopAllChannels(atOnce)
  }

  /*
   * Envelopes and filters move once a block. So blocks are counted from the start of each pass, not from the
   * loudspeaker's own: only then does every pass of a loop sound the same to the sample.
   */
  fill(frame: number, left: Float32Array, right: Float32Array, player?: Float32Array) {
    const frames = left.length
    while (this.ready < frames) {
      const at = this.ready
      const most = Math.min(block, room - at)
      this.ready += this.transport.run(frame + at, most, (from, count) =>
        this.processor.processSplit(this.outputs, this.ahead[0], this.ahead[1], at + from, count),
      )
    }
    player?.set(this.alone[0].subarray(0, frames))
    for (const [side, to] of [left, right].entries()) {
      const from = this.ahead[side]!
      const own = this.alone[side]!
      for (let i = 0; i < frames; i++) to[i] = from[i]! + own[i]!
      for (const sound of [from, own]) {
        sound.copyWithin(0, frames, this.ready)
        sound.fill(0, this.ready - frames)
      }
    }
    this.ready -= frames
  }
}
