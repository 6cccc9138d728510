/* The sound of one recording, as the page knows it: how loud it is where, and pieces of it. */
import { ref, shallowRef, triggerRef } from 'vue'
import type { Noticed } from './listening'
import type { Measured } from './measure'
import type { Ask, Tell } from './sound.worker'

/** Of longer ones a part of this length is taken in hand, in seconds. */
export const longest = 20 * 60
/** Such parts begin every so many seconds, so that what lies on the edge of one is in the middle of another. */
export const partEvery = 15 * 60
/** The part in which a moment lies. */
export const partAt = (at: number) => Math.floor(at / partEvery) * partEvery
export const peakRate = 100

type Asked<A> = A extends { id: number } ? Omit<A, 'id'> : never

export class Sound {
  private readonly worker = new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module' })
  private readonly waiting = new Map<number, (t: Tell) => void>()
  private last = 0
  /** How loud each hundredth of a second is, 0 to 255. */
  readonly peaks = shallowRef(new Uint8Array(0))
  readonly seconds = ref(0)
  readonly stereo = ref(false)
  readonly picture = ref(false)
  readonly rate = ref(0)
  /** All of it is decoded. */
  readonly whole = ref(false)
  readonly measuring = ref(0)
  /** Decibels of full scale, in the middle. */
  readonly loud = ref(-20)
  readonly trouble = ref('')
  /** It is so long that a part has to be chosen, and none is. */
  readonly long = ref(false)
  /** The second at which the part in hand begins. */
  readonly from = ref(0)

  constructor(private readonly url: string) {
    this.worker.onmessage = ({ data }: MessageEvent<Tell>) => this.hear(data)
    this.worker.onerror = () => (this.trouble.value = 'The sound of this recording could not be read.')
  }

  /** Reads all of it; of one that lasts longer than that is, from a second on, or the part is asked for. */
  open(from?: number, most = longest) {
    this.whole.value = this.long.value = false
    this.trouble.value = ''
    this.peaks.value = new Uint8Array(0)
    this.tell({ do: 'open', url: this.url, from, most })
  }

  /** The second at which what is in hand ends. */
  get end() {
    return Math.min(this.seconds.value, this.from.value + longest)
  }

  close() {
    this.worker.terminate()
    this.waiting.clear()
  }

  private tell(ask: Ask, transfer: Transferable[] = []) {
    this.worker.postMessage(ask, transfer)
  }

  private ask<K extends Tell['is']>(ask: Asked<Ask>): Promise<Extract<Tell, { is: K }>> {
    const id = ++this.last
    return new Promise((done, fail) => {
      this.waiting.set(id, (t) =>
        t.is === 'failed'
          ? fail(new Error(`This sound could not be worked on: ${t.why}`))
          : done(t as Extract<Tell, { is: K }>),
      )
      this.tell({ ...ask, id } as Ask)
    })
  }

  private hear(t: Tell) {
    if (t.is === 'opened') {
      this.seconds.value = t.seconds
      this.stereo.value = t.channels > 1
      this.picture.value = t.picture
      this.rate.value = t.rate
      this.from.value = t.from
      this.trouble.value = ''
    } else if (t.is === 'long') {
      this.seconds.value = t.seconds
      this.long.value = true
    } else if (t.is === 'peaks') {
      const need = t.at + t.peaks.length
      if (need > this.peaks.value.length) {
        const more = new Uint8Array(Math.max(need, Math.ceil(this.seconds.value * peakRate)))
        more.set(this.peaks.value)
        this.peaks.value = more
      }
      this.peaks.value.set(t.peaks, t.at)
      triggerRef(this.peaks)
    } else if (t.is === 'whole') {
      this.whole.value = true
      this.loud.value = t.loud
      if (t.seconds > this.seconds.value) this.seconds.value = t.seconds
    } else if (t.is === 'measuring') this.measuring.value = t.part
    else if (t.is === 'unread') void this.otherwise(t.why)
    else {
      this.waiting.get(t.id)?.(t)
      this.waiting.delete(t.id)
    }
  }

  /** What cannot be decoded in pieces the browser may decode in one. */
  private async otherwise(why: string) {
    try {
      const response = await fetch(this.url)
      const bytes = await response.arrayBuffer()
      if (!response.ok) throw new Error(why)
      const context = new OfflineAudioContext(2, 1, 44100)
      const buffer = await context.decodeAudioData(bytes)
      if (buffer.duration > longest) throw new Error(`it lasts ${Math.round(buffer.duration / 60)} minutes, and of its kind at most ${longest / 60} can be taken`) // prettier-ignore
      this.hear({ is: 'opened', rate: buffer.sampleRate, channels: buffer.numberOfChannels, seconds: buffer.duration, picture: false, from: 0 }) // prettier-ignore
      const some = 10 * buffer.sampleRate
      for (let at = 0; at < buffer.length; at += some) {
        const sides = Array.from({ length: buffer.numberOfChannels }, (_, c) => buffer.getChannelData(c).slice(at, at + some)) // prettier-ignore
        this.tell({ do: 'take', sides, rate: buffer.sampleRate, whole: at + some >= buffer.length }, sides.map((s) => s.buffer)) // prettier-ignore
      }
    } catch (e) {
      const said = e instanceof DOMException ? why : e instanceof Error ? e.message : why
      this.trouble.value = `This file cannot be heard: ${said.replace(/\.$/, '')}. A WAV, MP3, OGG, FLAC or M4A can.`
    }
  }

  /** Both sides, or the one there is, between two seconds. */
  async slice(from: number, to: number) {
    const { sides, rate } = await this.ask<'slice'>({ do: 'slice', from, to })
    return { sides, rate }
  }
  async measure(): Promise<Measured> {
    return (await this.ask<'measured'>({ do: 'measure' })).measured
  }
  async rows(how: { from: number; to: number; low: number; high: number; columns: number; cents: number }) {
    return (await this.ask<'rows'>({ do: 'rows', ...how })).rows
  }
  async listen(from: number, to: number, compass: [number, number]): Promise<Noticed[]> {
    return (await this.ask<'noticed'>({ do: 'listen', from, to, compass })).noticed
  }
}
