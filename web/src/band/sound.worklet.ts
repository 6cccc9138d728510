/* The sound on the audio thread. */
import type { Delivery, Order, Report } from './messages'
import { Synth } from './synth'

declare const sampleRate: number
declare const currentFrame: number
declare function registerProcessor(name: string, processor: unknown): void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

class Sound extends AudioWorkletProcessor {
  private readonly synth = new Synth(
    sampleRate,
    (anchor) => this.report({ is: 'at', anchor }),
    () => this.report({ is: 'over' }),
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
    await this.synth.open(bank)
    samples.onmessage = ({ data }: MessageEvent<Delivery>) => {
      if ('score' in data) {
        this.synth.transport.load(data.score, currentFrame)
        this.report({ is: 'loaded', id: data.id })
      } else this.synth.bank!.samples[data.sample]!.setAudioData(data.data, data.rate)
    }
    this.report({ is: 'ready' })
  }

  private obey(o: Order) {
    const { synth } = this
    const { transport } = synth
    switch (o.do) {
      case 'bank':
        this.open(o.bank, o.samples).catch((e: unknown) => this.report({ is: 'broken', why: String(e) }))
        break
      case 'start':
        synth.silence(true)
        transport.start(currentFrame + Math.round(o.after * sampleRate), o.from, o.tempo, o.loop, o.countIn)
        break
      case 'stop':
        transport.stop()
        synth.silence(false)
        break
      case 'tempo':
        transport.setTempo(o.tempo, currentFrame)
        break
      case 'loop':
        transport.setLoop(o.loop, currentFrame)
        break
      case 'ladder':
        transport.setLadder(o.ladder)
        break
      case 'go':
        transport.goTo(o.to, currentFrame)
        break
      case 'last':
        transport.last()
        break
      case 'level':
        synth.level(o.player, o.level)
        break
      case 'tone':
        synth.play('tone', [0x90, o.midi, o.velocity])
        break
      case 'hush':
        synth.play('tone', [0x80, o.midi, 64])
        break
      case 'join':
        transport.join(o.events)
        break
    }
  }

  process(_in: Float32Array[][], out: Float32Array[][]) {
    const [left, right] = out[0]!
    if (left && right) this.synth.fill(currentFrame, left, right, out[1]?.[0])
    return true
  }
}

registerProcessor('undaris-sound', Sound)
