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

class Sound extends AudioWorkletProcessor {
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
    // Chorus drifts, so that no two passes of a loop would sound the same.
    this.synth.setSystemParameter('chorusGain', 0)
    this.synth.setSystemParameter('reverbGain', 0.5)
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
    }
  }

  private play(player: string, data: number[]) {
    this.synth.processMessage([(data[0]! & 0xf0) | (channels[player]!.channel % 16), ...data.slice(1)])
  }

  process(_in: Float32Array[][], out: Float32Array[][]) {
    const [left, right] = out[0]!
    if (!left || !right) return true
    this.transport.run(currentFrame, left.length, (from, count) => this.synth.process(left, right, from, count))
    return true
  }
}

registerProcessor('undaris-sound', Sound)
