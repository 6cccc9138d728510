/* A file of sound becomes a recording, and is opened. */
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { useRecordingChanges } from '../api/recordings'

/** Its name without what it ends on, as a title. */
export const titleOf = (name: string) => name.replace(/\.[^.]{1,5}$/, '').replace(/[_\s]+/g, ' ').trim() || 'A recording' // prettier-ignore

/** Whether a file is sound, or a picture with sound; notes that are called audio are none. */
export const isRecording = (file: Pick<File, 'name' | 'type'>) =>
  (/^(audio|video)\//.test(file.type) && !/midi/.test(file.type)) ||
  /\.(wav|mp3|ogg|oga|opus|flac|m4a|aac|weba|webm|mp4|mov|mkv)$/i.test(file.name)

export function useOpenRecording() {
  const router = useRouter()
  const changes = useRecordingChanges()
  const opening = ref(false)
  const trouble = ref('')
  async function open(file: File) {
    opening.value = true
    trouble.value = ''
    try {
      const made = await changes.begin(titleOf(file.name), file)
      await router.push({ name: 'recording', params: { id: made.id } })
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
    opening.value = false
  }
  return { opening, trouble, open }
}
