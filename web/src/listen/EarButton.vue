<script setup lang="ts">
/* The microphone: off, or on with how loud it is; its dialog tunes and measures. */
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import type { Instrument } from '../api/client'
import EarDialog from './EarDialog.vue'
import LevelMeter from './LevelMeter.vue'
import { useEar } from './useEar'

const props = defineProps<{ instrument?: Instrument }>()
const ear = useEar()
const open = ref(false)
/* A half step beneath the lowest string, and as high as the last fret can be bent. */
const compass = computed(() => {
  const { midi, last } = props.instrument ?? {}
  return midi && last ? [Math.min(...midi) - 1, Math.max(...midi) + last + 3].join() : undefined
})
/* It is remembered: the first press or key here turns it on again, since sound begins with one. */
useEventListener(window, ['pointerdown', 'keydown'], () => void ear.wake(), { capture: true, once: true })
watch(compass, (c) => c && ear.listenTo(...(c.split(',').map(Number) as [number, number])), { immediate: true })
</script>

<template>
  <Button
    class="ear"
    :variant="ear.on ? undefined : 'outlined'"
    :aria-pressed="ear.on"
    aria-label="The ear"
    title="listen by microphone: level, tuner, delay"
    @click="open = true"
  >
    <i class="pi pi-microphone" aria-hidden="true" />
    <LevelMeter v-if="ear.on" :level="ear.level" :gate="ear.kept.gate" small />
    <span v-if="ear.clips" role="alert">too loud: turn the input down</span>
  </Button>
  <EarDialog v-model="open" :instrument="instrument" />
</template>

<style scoped>
.ear {
  min-width: 2.5rem;
  gap: 0.4rem;
}
</style>
