/* Ringing or mixed sound, heard by the model: its worker lives as long as somebody asks. */
import { ref } from 'vue'
import { modelRate } from './modelRate'
import type { Sounded } from './model'
import type { Tell } from './model.worker'
import { resampled } from './sides'

export class Mixed {
  private worker?: Worker
  private last = 0
  private readonly waiting = new Map<number, { done: (n: Sounded[]) => void; fail: (e: Error) => void }>()
  /** How far it is, 0 to 1. */
  readonly part = ref(0)

  close() {
    this.worker?.terminate()
    this.worker = undefined
  }

  /** The notes of a stretch that begins at a second; their times are those of the recording. */
  async hear(sides: Float32Array[], rate: number, from: number): Promise<Sounded[]> {
    const mono = sides.length > 1 ? sides[0]!.map((x, i) => (x + sides[1]![i]!) / 2) : sides[0]!
    const [samples] = rate === modelRate ? [mono] : await resampled([mono], rate, modelRate)
    this.worker ??= this.open()
    const id = ++this.last
    this.part.value = 0
    const notes = await new Promise<Sounded[]>((done, fail) => {
      this.waiting.set(id, { done, fail })
      this.worker!.postMessage({ id, samples: samples!.slice() })
    })
    return notes.map((n) => ({ ...n, at: n.at + from }))
  }

  private open() {
    const worker = new Worker(new URL('./model.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<Tell>) => {
      const w = this.waiting.get(data.id)
      if ('part' in data) this.part.value = data.part
      else if ('notes' in data) w?.done(data.notes)
      else w?.fail(new Error(data.why))
    }
    worker.onerror = () => {
      for (const w of this.waiting.values()) w.fail(new Error('The model could not be loaded.'))
      this.close()
    }
    return worker
  }
}
