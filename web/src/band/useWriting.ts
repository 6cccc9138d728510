/* The band written into a WAV file, with how far it is; one file at a time. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Writing, Written } from './messages'
import { save } from '../shell/save'
import { levelsOf } from './levels'
import { useBandSettings } from './useBandSettings'

/** What is to be written; without a tempo, at that of the file. */
interface Along {
  title: string
  tempo?: number
  load: () => Promise<ArrayBuffer>
  /** how loud each player is; as they are set where it is not said */
  levels?: Record<string, number>
}

export const useWriting = defineStore('writing', () => {
  const { kept } = useBandSettings()
  /** What is being written, how far it is, and why it was not. */
  const title = ref('')
  const part = ref(0)
  const trouble = ref('')
  let stopped = () => {}

  /** The file, or nothing where it was stopped or went wrong. */
  async function write({ title: what, tempo, load, levels = levelsOf(kept) }: Along): Promise<ArrayBuffer | undefined> {
    stop()
    title.value = what
    part.value = 0
    trouble.value = ''
    let worker: Worker | undefined
    let off = false // it was stopped, perhaps for another
    try {
      return await new Promise<ArrayBuffer | undefined>((done, fail) => {
        stopped = () => {
          off = true
          done(undefined)
        }
        void Promise.all([import('./engine').then((e) => e.fetchBank(() => {})), load()])
          .then(([bank, midi]) => {
            if (off) return
            worker = new Worker(new URL('./write.worker.ts', import.meta.url), { type: 'module' })
            worker.onmessage = ({ data }: MessageEvent<Written>) => {
              if ('part' in data) part.value = data.part
              else if ('wav' in data) done(data.wav)
              else fail(new Error(data.why))
            }
            worker.onerror = (e) => fail(new Error(`The sound could not be written (${e.message}).`))
            worker.postMessage({ bank, midi, tempo, levels } satisfies Writing, [bank, midi])
          })
          .catch(fail)
      })
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
      return undefined
    } finally {
      worker?.terminate()
      if (!off) title.value = ''
    }
  }

  function stop() {
    stopped()
    title.value = ''
  }

  /** Writes it, and hands it to the player as a file. */
  async function keep(along: Along) {
    const wav = await write(along)
    if (wav) save(new Blob([wav], { type: 'audio/wav' }), along.title, 'wav')
  }

  return { title, part, trouble, write, save: keep, stop }
})
