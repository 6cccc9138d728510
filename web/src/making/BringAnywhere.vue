<script setup lang="ts">
/* A file that is dropped anywhere, or music that is pasted where nothing is typed, is brought in. */
import { ref, shallowRef } from 'vue'
import { useEventListener } from '@vueuse/core'
import { useRoute } from 'vue-router'
import { useToast } from 'primevue/usetoast'
import { later } from '../shell/later'
import { broughtAs, type Kind } from './bringing'
import { isRecording, useOpenRecording } from './useOpenRecording'

const BringDialog = later(() => import('./BringDialog.vue'))
const route = useRoute()
const toast = useToast()
const recordings = useOpenRecording()
const open = ref(false)
const over = ref(false)
const brought = shallowRef<{ kind: Kind; files: File[]; n: number }>()

/** A dialog takes what is dropped on it; beside it nothing is dropped. */
const busy = () => !!document.querySelector('[role=dialog]')
async function take(files: File[]) {
  const first = files[0]!
  if (isRecording(first)) {
    await recordings.open(first)
    if (recordings.trouble.value) toast.add({ severity: 'secondary', summary: recordings.trouble.value, life: 8000 })
    return
  }
  const kind = broughtAs(first.name, await first.slice(0, 20_000).text(), String(route.name ?? ''))
  if (!kind) {
    const summary = `${first.name} is no music that can be read here: chords as text, tablature, MusicXML, MIDI, or a recording.`
    return void toast.add({ severity: 'secondary', summary, life: 8000 })
  }
  brought.value = { kind, files, n: (brought.value?.n ?? 0) + 1 }
  open.value = true
}
const files = (e: DragEvent) => !!e.dataTransfer?.types.includes('Files')
useEventListener(window, 'dragover', (e) => {
  if (!files(e)) return
  e.preventDefault() // else the browser leaves for the file
  over.value = !busy()
})
useEventListener(window, 'dragleave', (e) => e.relatedTarget || (over.value = false))
useEventListener(window, 'drop', (e) => {
  over.value = false
  if (e.defaultPrevented || !files(e)) return
  e.preventDefault()
  if (!busy() && e.dataTransfer!.files.length) void take([...e.dataTransfer!.files])
})
useEventListener(window, 'paste', (e) => {
  if (e.defaultPrevented || busy()) return
  if ((e.target as HTMLElement).closest?.('input, textarea, [contenteditable]')) return
  const list = [...(e.clipboardData?.files ?? [])]
  const text = e.clipboardData?.getData('text/plain') ?? ''
  if (list.length) void take(list)
  else if (broughtAs('pasted.txt', text, String(route.name ?? ''))) void take([new File([text], 'pasted.txt')])
})
</script>

<template>
  <p v-if="over" class="over" role="status">Let go to bring it in</p>
  <BringDialog v-if="brought" :key="brought.n" v-model="open" :as="brought.kind" :files="brought.files" />
</template>

<style scoped>
.over {
  position: fixed;
  inset: 0;
  z-index: 1000;
  display: grid;
  place-content: center;
  margin: 0;
  border: 4px dashed var(--ink);
  background: color-mix(in srgb, var(--paper) 85%, transparent);
  font-size: var(--text-xl, 2rem);
  font-weight: 600;
  pointer-events: none;
}
</style>
