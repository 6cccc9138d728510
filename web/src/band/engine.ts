/* The sound as the page knows it: loaded on the first play, then told what to do. */
import soundURL from './sound.worklet.ts?worker&url'
import type { Anchor, Loop, Order, Read, Report, Request } from './messages'

const bankURL = '/sound/band.sf3'

/** Why there is no sound, in a line a player can act on. */
export class NoSound extends Error {}

/** A stretch of the band's time: a tick, when it is heard, ticks in a millisecond, and where it comes round. */
export interface Stretch {
  tick: number
  at: number
  perMs: number
  loop?: Loop
}

export class Engine {
  private anchors: Anchor[] = []
  private loads = 0
  private waiting = new Map<number, () => void>()
  private notes: Read['notes'] = []
  private lead: boolean[] = []
  /** ticks of an intro before the top */
  intro = 0
  /** and of a pickup */
  pickup = 0
  onAnchor: (a: Anchor) => void = () => {}
  onOver: () => void = () => {}
  onBroken: (why: string) => void = () => {}

  private constructor(
    readonly context: AudioContext,
    private readonly node: AudioWorkletNode,
    private readonly reader: Worker,
    /** where all that sounds goes through, as loud as the player has it */
    readonly master: GainNode,
  ) {}

  /** Loads the synthesiser and the instruments; progress goes from 0 to 1. */
  static async open(progress: (part: number) => void): Promise<Engine> {
    if (!window.AudioContext)
      throw new NoSound('This browser has no sound for pages. Everything else works; for sound, use a newer browser.')
    const context = new AudioContext({ latencyHint: 'balanced' })
    if (!context.audioWorklet)
      throw new NoSound(
        'This browser cannot play the band at this address. Open Undaris by 127.0.0.1 or localhost, or use a newer browser; everything else works.',
      )
    void context.resume()
    const reader = new Worker(new URL('./reader.worker.ts', import.meta.url), { type: 'module' })
    try {
      const [bank] = await Promise.all([fetchBank(progress), context.audioWorklet.addModule(soundURL)])
      const node = new AudioWorkletNode(context, 'undaris-sound', {
        numberOfInputs: 0,
        numberOfOutputs: 2,
        outputChannelCount: [2, 1],
      })
      const master = new GainNode(context)
      node.connect(master).connect(context.destination)
      const engine = new Engine(context, node, reader, master)
      const pipe = new MessageChannel()
      reader.postMessage({ bank, samples: pipe.port1 } satisfies Request, [pipe.port1])
      await new Promise<void>((ready, fail) => {
        node.port.onmessage = ({ data }: MessageEvent<Report>) => {
          if (data.is === 'ready') ready()
          else if (data.is === 'broken')
            fail(new NoSound('The instruments could not be read. Build Undaris anew; everything but the sound works.'))
        }
        engine.tell({ do: 'bank', bank, samples: pipe.port2 }, [pipe.port2])
      })
      node.port.onmessage = ({ data }: MessageEvent<Report>) => engine.hear(data)
      reader.onmessage = ({ data }: MessageEvent<Read>) => {
        engine.notes = data.notes
        engine.lead = data.lead
        engine.intro = data.intro
        engine.pickup = data.pickup
      }
      node.onprocessorerror = () => engine.onBroken('the synthesiser stopped')
      progress(1)
      return engine
    } catch (e) {
      reader.terminate()
      void context.close()
      throw e instanceof NoSound
        ? e
        : new NoSound(
            `The sound could not be loaded (${e instanceof Error ? e.message : e}). Everything else works; reload the page to try again.`,
          )
    }
  }

  private hear(r: Report) {
    if (r.is === 'at') {
      this.anchors.push(r.anchor)
      this.onAnchor(r.anchor)
    } else if (r.is === 'loaded') {
      this.waiting.get(r.id)?.()
      this.waiting.delete(r.id)
    } else if (r.is === 'over') this.onOver()
    else if (r.is === 'broken') this.onBroken(r.why)
  }

  tell(order: Order, transfer: Transferable[] = []) {
    this.node.port.postMessage(order, transfer)
  }

  /** Hands over a MIDI file, and waits until it and its samples have arrived. */
  load(midi: ArrayBuffer): Promise<void> {
    const id = ++this.loads
    return new Promise((done) => {
      this.waiting.set(id, done)
      this.reader.postMessage({ midi, id } satisfies Request, [midi])
    })
  }

  /** A suspended context means that the browser waits for a press of a key or button. */
  async wake() {
    await Promise.race([this.context.resume(), new Promise((r) => setTimeout(r, 600))])
    if (this.context.state !== 'running')
      throw new NoSound(
        'No sound can be played: the browser holds it back, or there is no sound device. Allow sound for this address, then press play again.',
      )
  }

  /** Hands on what the simulated player alone sounds, until what it returns is called. */
  player(to: AudioNode) {
    this.node.connect(to, 1)
    return () => this.node.disconnect(to, 1)
  }

  /** Plays a recording that begins with the first bar, as loud as the band: once that bar is known to begin. */
  async beside(wav: ArrayBuffer) {
    const buffer = await this.context.decodeAudioData(wav)
    const source = new AudioBufferSourceNode(this.context, { buffer })
    source.connect(this.master)
    const anchor = this.anchors.at(-1)
    const first = anchor ? (anchor.frame - anchor.tick * anchor.framesPerTick) / this.context.sampleRate : 0
    const late = Math.max(0, this.context.currentTime - first)
    source.start(Math.max(first, this.context.currentTime), late)
    return () => source.stop()
  }

  setVolume(level: number) {
    this.master.gain.setTargetAtTime(level, this.context.currentTime, 0.02)
  }

  forget() {
    this.anchors = []
  }

  /** What is heard, in the context's seconds, ahead of now by some seconds. */
  private heard(ahead: number) {
    const stamp = this.context.getOutputTimestamp()
    const since = stamp.contextTime && stamp.performanceTime ? (performance.now() - stamp.performanceTime) / 1000 : -1
    // A stamp that is old or lies ahead of the clock is of no use.
    const time =
      since >= 0 && since < 0.5
        ? stamp.contextTime! + since
        : this.context.currentTime - (this.context.outputLatency || 0)
    return Math.min(time, this.context.currentTime) + ahead
  }

  /** What the band plays from one tick up to another: ticks and MIDI numbers; with its lead or without. */
  between(from: number, to: number, lead = true) {
    return this.notes.filter(([at], i) => at >= from && at < to && (lead || !this.lead[i]))
  }

  /** The tick that sounds at a frame, and the stretch it belongs to. */
  at(frame: number): { tick: number; anchor: Anchor } | undefined {
    const anchor = this.anchors.findLast((a) => a.frame <= frame)
    return anchor && { tick: anchor.tick + (frame - anchor.frame) / anchor.framesPerTick, anchor }
  }

  /** What is known of where the band stands: from when, in milliseconds of the page, which ticks go by how quickly. */
  stretches(): Stretch[] {
    const frame = this.frame()
    const perMs = this.context.sampleRate / 1000
    return this.anchors.map((a) => ({
      tick: a.tick,
      at: performance.now() + (a.frame - frame) / perMs,
      perMs: perMs / a.framesPerTick,
      loop: a.loop,
    }))
  }

  /** The frame that is heard now. */
  frame(): number {
    return this.heard(0) * this.context.sampleRate
  }

  /** The tick that is heard, and the stretch it belongs to. */
  position(ahead: number): { tick: number; anchor: Anchor } | undefined {
    const frame = this.heard(ahead) * this.context.sampleRate
    // What has been over for a second is forgotten; a little ahead and a little behind are asked for in turn.
    while (this.anchors.length > 1 && this.anchors[1]!.frame <= frame - this.context.sampleRate) this.anchors.shift()
    return this.at(frame)
  }
}

export async function fetchBank(progress: (part: number) => void): Promise<ArrayBuffer> {
  const response = await fetch(bankURL)
  const kind = response.headers.get('Content-Type') ?? ''
  if (!response.ok || !response.body || kind.startsWith('text/html'))
    throw new NoSound('The instruments are missing from this build. Run make build; everything but the sound works.')
  const total = Number(response.headers.get('Content-Length')) || 1_800_000
  const parts: Uint8Array<ArrayBuffer>[] = []
  let got = 0
  for (const reader = response.body.getReader(); ;) {
    const { done, value } = await reader.read()
    if (done) break
    parts.push(value)
    got += value.length
    progress(Math.min(0.9, (got / total) * 0.9))
  }
  return new Blob(parts).arrayBuffer()
}
