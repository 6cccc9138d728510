<script setup lang="ts">
/* By ear: the shelf of recordings. A file is opened or dropped, or something is played into the microphone. */
import { useTitle } from '@vueuse/core'
import { ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import { useFoundRecordings, useRecordingChanges } from '../../api/recordings'
import type { RecordingRow } from '../../api/client'
import { lasting } from '../../recording/inHand'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import ShelfPlace from '../../shell/ShelfPlace.vue'
import ShelfRow from '../../shell/ShelfRow.vue'
import RecordHere from './RecordHere.vue'
import { useOpenRecording } from '../../making/useOpenRecording'

useTitle('By ear · Undaris')
const router = useRouter()
const sought = ref('')
const recordings = useFoundRecordings(() => ({ find: sought.value }))
const changes = useRecordingChanges()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const { opening, trouble, open } = useOpenRecording()
const recording = ref(false)

const size = (bytes: number) => (bytes < 1e6 ? `${Math.round(bytes / 1e3)} kB` : `${(bytes / 2 ** 20).toFixed(1)} MB`)
const about = (r: RecordingRow) =>
  r.problem ??
  [
    r.seconds && lasting(r.seconds),
    r.tempo && `${Math.round(r.tempo)} beats a minute`,
    r.settled && `${r.settled} notes settled`,
    r.bytes ? size(r.bytes) : 'its file is not here',
  ]
    .filter(Boolean)
    .join(' · ')
async function take(e: Event) {
  const input = e.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (file) await open(file)
}
async function kept(id: number) {
  recording.value = false
  await router.push({ name: 'recording', params: { id } })
}
</script>

<template>
  <ShelfPlace
    v-if="recordings.rows"
    v-model="sought"
    title="By ear"
    one="recording"
    by="title or key"
    :found="recordings"
  >
    <template #begin>
      <Button
        label="Record here"
        icon="pi pi-microphone"
        variant="outlined"
        :aria-expanded="recording"
        @click="recording = !recording"
      />
      <Button
        :label="opening ? 'Copying it here …' : 'Open a recording'"
        icon="pi pi-folder-open"
        :disabled="opening"
        @click="chooser?.click()"
      />
      <input ref="chooser" type="file" accept="audio/*,video/*" hidden aria-label="a recording" @change="take" />
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <RecordHere v-if="recording" @kept="kept" @close="recording = false" />
    </template>
    <template #default="{ item: r }">
      <ShelfRow :to="{ name: 'recording', params: { id: r.id } }" :of="r.key ?? ''" :name="r.title" :about="about(r)">
        <Button variant="text" icon="pi pi-trash" :aria-label="`delete ${r.title}`" @click="changes.remove(r)" />
      </ShelfRow>
    </template>
    <template #empty>
      <EmptyPlace
        title="No recordings yet"
        text="Open a file of sound or a video: two bars of it go round as slowly as you want, at the same pitch, and what is played is written down as you settle it, note by note. It stays on this machine."
      >
        <Button label="Open a recording" @click="chooser?.click()" />
      </EmptyPlace>
    </template>
  </ShelfPlace>
  <EmptyPlace v-else-if="recordings.error" title="No answer" :text="recordings.error.message" />
</template>

<style scoped>
.trouble {
  flex-basis: 100%;
  color: var(--danger);
  font-weight: 600;
}
</style>
