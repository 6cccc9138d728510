/* A recording that is made of a line has its file rendered when it is first opened: the band plays it, as on an old tape. */
import { ref, watch } from 'vue'
import { answer, api, type Recording } from '../../api/client'
import type { useRecordingChanges } from '../../api/recordings'
import { lineBody, playing } from '../../api/kept'
import { useWriting } from '../../band/useWriting'
import { Wav } from '../../band/wav'
import { onTape } from '../../recording/oldTape'

/** How each player stands in the mix of such a recording. */
const levels = { drums: 0.8, bass: 0.9, chords: 0.6, lead: 1.25, 'lead beside': 1.25, metronome: 0 }

export function useRendered(
  stored: { data: { value: Recording | undefined }; refetch: () => unknown },
  changes: ReturnType<typeof useRecordingChanges>,
) {
  // prettier-ignore
  const writing = useWriting()
  const doing = ref(false)
  const trouble = ref('')
  async function render(r: Recording) {
    const make = r.hearing.make!
    doing.value = true
    trouble.value = ''
    try {
      const line = lineBody(await answer(api.GET('/api/lines/{id}', { params: { path: { id: make.line } } })))
      const load = () => playing(line)({ comp: 'guitar', intensity: 3, arc: 'level', course: 'all', bass: 'own', click: 'beats', metronome: false, seed: 7, tempo: line.tempo, choruses: 2, countIn: 'false', ending: 'own' }) // prettier-ignore
      const wav = await writing.write({ title: r.title, tempo: line.tempo, load, levels })
      if (!wav) throw new Error(writing.trouble || 'it was stopped')
      const sound = await onTape(wav, make.cents)
      const file = new Wav(sound.sampleRate)
      file.add(sound.getChannelData(0), sound.getChannelData(1))
      await changes.put(r.id, new Blob([file.file()], { type: 'audio/wav' }))
      stored.refetch()
    } catch (e) {
      trouble.value = `The band could not play it: ${e instanceof Error ? e.message : String(e)}`
    }
    doing.value = false
  }
  watch(
    () => stored.data.value,
    (r) => {
      if (r && !r.bytes && r.hearing.make && !doing.value && !trouble.value) void render(r)
    },
    { immediate: true },
  )
  return { doing, part: () => writing.part, trouble }
}
