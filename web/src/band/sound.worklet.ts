/* The sound: the synthesiser and the band's clock, on the audio thread. */
import { SoundBankLoader, SpessaSynthProcessor, type BasicSoundBank } from 'spessasynth_core'
import { channels, players, type Delivery, type Order, type Report } from './messages'
import { Transport } from './transport'

declare const sampleRate: number
declare const currentFrame: number
declare function registerProcessor(name: string, processor: unknown): void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

const block = 128
const room = 4 * block

class Sound extends AudioWorkletProcessor {
  /** Sound that is rendered and not yet heard. */
  private readonly ahead: [Float32Array, Float32Array] = [new Float32Array(room), new Float32Array(room)]
  /** Of that, what the simulated player plays. */
  private readonly alone: [Float32Array, Float32Array] = [new Float32Array(room), new Float32Array(room)]
  private readonly outputs = Array.from({ length: 16 }, (_, channel) =>
    channel === channels.player!.channel ? this.alone : this.ahead,
  )
  private ready = 0
  private readonly synth = new SpessaSynthProcessor(sampleRate, { eventsEnabled: false, initialTime: 0 })
  private bank?: BasicSoundBank
  private readonly transport = new Transport(
    sampleRate,
    (e) => this.play(players[e.track]!, e.data),
    (anchor) => this.report({ is: 'at', anchor }),
  )

  constructor() {
    super()
    this.port.onmessage = ({ data }: MessageEvent<Order>) => {
      try {
        this.obey(data)
      } catch (e) {
        this.report({ is: 'broken', why: String(e) })
      }
    }
  }

  private report(r: Report) {
    this.port.postMessage(r)
  }

  private async open(bank: ArrayBuffer, samples: MessagePort) {
    await this.synth.processorInitialized
    this.bank = SoundBankLoader.fromArrayBuffer(bank)
    this.synth.soundBankManager.addSoundBank(this.bank, 'band')
    // Chorus and the reverb's own sway drift, so that no two passes of a loop would sound the same.
    this.synth.setSystemParameter('chorusGain', 0)
    this.synth.setSystemParameter('reverbGain', 0.5)
    const hall = this.synth.reverbProcessor as { dattorro?: { excursionDepth: number } }
    if (hall.dattorro) hall.dattorro.excursionDepth = 0
    for (const { channel, drum, program } of Object.values(channels)) {
      if (drum) this.synth.midiChannels[channel]!.setDrums(true)
      this.synth.programChange(channel, program ?? 0)
    }
    samples.onmessage = ({ data }: MessageEvent<Delivery>) => {
      if ('score' in data) {
        this.transport.load(data.score, currentFrame)
        this.report({ is: 'loaded', id: data.id })
      } else this.bank!.samples[data.sample]!.setAudioData(data.data, data.rate)
    }
    this.report({ is: 'ready' })
  }

  private obey(o: Order) {
    switch (o.do) {
      case 'bank':
        this.open(o.bank, o.samples).catch((e: unknown) => this.report({ is: 'broken', why: String(e) }))
        break
      case 'start':
        this.synth.stopAllChannels(true)
        this.transport.start(currentFrame, o.from, o.tempo, o.loop, o.countIn)
        break
      case 'stop':
        this.transport.stop()
        this.synth.stopAllChannels(false)
        break
      case 'tempo':
        this.transport.setTempo(o.tempo, currentFrame)
        break
      case 'loop':
        this.transport.setLoop(o.loop, currentFrame)
        break
      case 'ladder':
        this.transport.setLadder(o.ladder)
        break
      case 'go':
        this.transport.goTo(o.to, currentFrame)
        break
      case 'level':
        this.synth.midiChannels[channels[o.player]!.channel]!.setSystemParameter('gain', o.level)
        break
      case 'tone':
        this.play('tone', [0x90, o.midi, o.velocity])
        break
      case 'hush':
        this.play('tone', [0x80, o.midi, 64])
        break
      case 'join':
        this.transport.join(o.events)
        break
    }
  }

  private play(player: string, data: number[]) {
    this.synth.processMessage([(data[0]! & 0xf0) | (channels[player]!.channel % 16), ...data.slice(1)])
  }

  /*
   * Envelopes and filters move once a block. So blocks are counted from the start of each pass, not from the
   * loudspeaker's own: only then does every pass of a loop sound the same to the sample.
   */
  process(_in: Float32Array[][], out: Float32Array[][]) {
    const [left, right] = out[0]!
    if (!left || !right) return true
    const frames = left.length
    while (this.ready < frames) {
      const at = this.ready
      const most = Math.min(block, room - at)
      this.ready += this.transport.run(currentFrame + at, most, (from, count) =>
        this.synth.processSplit(this.outputs, this.ahead[0], this.ahead[1], at + from, count),
      )
    }
    const player = out[1]?.[0]
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
    return true
  }
}

registerProcessor('undaris-sound', Sound)
