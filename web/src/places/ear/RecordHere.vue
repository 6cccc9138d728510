<script setup lang="ts">
/* What comes in by the microphone becomes a recording, as it is: without what browsers do to voices. */
import { computed, onScopeDispose, ref } from 'vue'
import Button from 'primevue/button'
import { useRecordingChanges } from '../../api/recordings'
import { lasting } from '../../recording/inHand'

const emit = defineEmits<{ kept: [id: number]; close: [] }>()
const changes = useRecordingChanges()
const trouble = ref('')
const since = ref(0)
const now = ref(0)
const keeping = ref(false)
let stream: MediaStream | undefined
let recorder: MediaRecorder | undefined
let timer: ReturnType<typeof setInterval> | undefined
const running = computed(() => since.value > 0)
/** Longer than this nobody means to record. */
const longest = 20 * 60

function letGo() {
  clearInterval(timer)
  stream?.getTracks().forEach((t) => t.stop())
  stream = recorder = undefined
  since.value = 0
}
onScopeDispose(letGo)

async function begin() {
  trouble.value = ''
  try {
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    })
    recorder = new MediaRecorder(stream)
    const parts: Blob[] = []
    recorder.ondataavailable = (e) => parts.push(e.data)
    recorder.onstop = () => void keep(new Blob(parts, { type: recorder?.mimeType ?? parts[0]?.type }))
    recorder.start(1000)
    since.value = now.value = Date.now()
    timer = setInterval(() => {
      now.value = Date.now()
      if (now.value - since.value > longest * 1000) recorder?.stop()
    }, 250)
  } catch (e) {
    letGo()
    const refused = e instanceof DOMException && e.name === 'NotAllowedError'
    trouble.value = refused
      ? 'The browser does not let this page hear the microphone: allow it for this address.'
      : `The microphone cannot be heard: ${e instanceof Error ? e.message : String(e)}.`
  }
}
async function keep(sound: Blob) {
  letGo()
  keeping.value = true
  try {
    const when = new Date().toLocaleString(undefined, { weekday: 'long', hour: '2-digit', minute: '2-digit' })
    const made = await changes.begin(`Played here, ${when}`, sound)
    emit('kept', made.id)
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
  keeping.value = false
}
</script>

<template>
  <section class="here" aria-label="record here">
    <Button
      v-if="!running"
      label="Record"
      icon="pi pi-circle-fill"
      severity="danger"
      :disabled="keeping"
      @click="begin"
    />
    <Button v-else label="Stop, and keep it" icon="pi pi-stop" @click="recorder?.stop()" />
    <span v-if="running" role="timer">{{ lasting((now - since) / 1000) }}</span>
    <span v-else class="hint">The microphone as it is; twenty minutes at most.</span>
    <Button label="Close" variant="text" @click="emit('close')" />
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.here {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
  padding: 0.6rem 0.9rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: var(--raised);
}

[role='timer'] {
  font: 600 var(--text-xl) var(--font-display);
}

.hint {
  color: var(--soft);
}

.trouble {
  flex-basis: 100%;
  color: var(--danger);
}
</style>
