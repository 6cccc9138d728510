<script setup lang="ts">
/* The picture of a recording that has one: it goes round and slows with the sound, and steps by frames where nothing plays. */
import { useTemplateRef, watch } from 'vue'
import Button from 'primevue/button'
import type { RecordingSound } from './useRecordingSound'

const props = defineProps<{ url: string; sound: RecordingSound }>()
const video = useTemplateRef<HTMLVideoElement>('video')
/** Seconds that the picture may be beside the sound, before it is set anew. */
const beside = 0.09
const frame = 1 / 25

watch(
  () => [props.sound.playing.value, props.sound.how.rate, props.sound.round.value.gap] as const,
  ([playing, rate, gap]) => {
    const v = video.value
    if (!v) return
    v.playbackRate = rate
    if (playing && !gap) void v.play().catch(() => undefined)
    else v.pause()
  },
)
watch(
  () => props.sound.at.value,
  (at) => {
    const v = video.value
    if (v && Math.abs(v.currentTime - at) > beside) v.currentTime = at
  },
)
const step = (by: number) => props.sound.seek(props.sound.at.value + by * frame)
</script>

<template>
  <figure class="picture">
    <video ref="video" :src="url" muted playsinline preload="auto" aria-label="the picture of the recording" />
    <figcaption>
      <Button
        size="small"
        variant="outlined"
        icon="pi pi-step-backward"
        aria-label="a frame back"
        :disabled="sound.playing.value"
        @click="step(-1)"
      />
      <Button
        size="small"
        variant="outlined"
        icon="pi pi-step-forward"
        aria-label="a frame on"
        :disabled="sound.playing.value"
        @click="step(1)"
      />
    </figcaption>
  </figure>
</template>

<style scoped>
.picture {
  display: grid;
  gap: 0.4rem;
  margin: 0;
}

video {
  width: 100%;
  max-height: 15rem;
  background: var(--ink);
  border-radius: var(--round);
}

figcaption {
  display: flex;
  gap: 0.4rem;
}
</style>
