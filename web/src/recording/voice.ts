/* One sound that is stretched: filtered, brought to the level of everything else, and set to a side. */
import { openStretch, type StretchNode } from './stretch'

/** Decibels of full scale that everything is brought to, and the most that it is made louder by. */
const usual = -18
const most = 18

export class Voice {
  private constructor(
    private readonly context: AudioContext,
    private readonly node: StretchNode,
    private readonly low: BiquadFilterNode,
    private readonly high: BiquadFilterNode,
    private readonly gain: GainNode,
    private readonly pan: StereoPannerNode,
    private readonly level: GainNode,
  ) {}

  static async open(context: AudioContext, to: AudioNode): Promise<Voice> {
    const node = await openStretch(context)
    const low = new BiquadFilterNode(context, { type: 'highpass', frequency: 20, Q: 0.7 })
    const high = new BiquadFilterNode(context, { type: 'lowpass', frequency: 20000, Q: 0.7 })
    const gain = new GainNode(context)
    // What a filter or a single side leaves may be brought up; nothing jumps out of it.
    const limit = new DynamicsCompressorNode(context, {
      threshold: -6,
      knee: 0,
      ratio: 20,
      attack: 0.002,
      release: 0.08,
    })
    const pan = new StereoPannerNode(context)
    const fade = new GainNode(context)
    node.connect(low).connect(high).connect(gain).connect(limit).connect(pan).connect(fade).connect(to)
    return new Voice(context, node, low, high, gain, pan, fade)
  }

  /** Takes one sound in place of the one before. The node is given one piece alone: of several it reads beyond their ends. */
  async load(sides: Float32Array[]) {
    await this.node.dropBuffers()
    await this.node.addBuffers(sides)
  }

  /** From a moment of the context's clock on: from a second of what was loaded. */
  play(outputTime: number, input: number, rate: number, semitones: number) {
    void this.node.schedule({ outputTime, active: true, input, rate, semitones, loopStart: 0, loopEnd: 0 })
  }
  rest(outputTime: number) {
    void this.node.schedule({ outputTime, active: false })
  }

  close() {
    void this.node.dropBuffers()
    this.node.disconnect()
    this.level.disconnect()
  }

  /** Comes up, or goes down, until a moment, over so many seconds. */
  fade(to: number, until: number, over: number) {
    this.level.gain.cancelScheduledValues(until - over)
    this.level.gain.setValueAtTime(1 - to, until - over)
    this.level.gain.linearRampToValueAtTime(to, until)
  }

  /** -1 is left, 1 right. */
  place(side: number) {
    this.pan.pan.setTargetAtTime(side, this.context.currentTime, 0.02)
  }

  /** Brings it to the level of everything else, and lets through what lies between two frequencies. */
  tune(loud: number, low: number, high: number) {
    const now = this.context.currentTime
    this.gain.gain.setTargetAtTime(10 ** (Math.max(-most, Math.min(most, usual - loud)) / 20), now, 0.02)
    this.low.frequency.setTargetAtTime(low, now, 0.02)
    this.high.frequency.setTargetAtTime(high, now, 0.02)
  }
}
