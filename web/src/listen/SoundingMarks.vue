<script setup lang="ts">
/* What is heard, on the neck at once: every place of the stretch in view where it may be played. */
import { computed } from 'vue'
import type { Instrument } from '../api/client'
import { useEar } from './useEar'

const props = defineProps<{
  instrument: Pick<Instrument, 'midi' | 'last'>
  from: number
  to: number
  x: (fret: number) => number
  y: (string: number) => number
}>()
const ear = useEar()
/* Only a clear pitch is shown, and only its half step is followed. */
const midi = computed(() =>
  ear.on && ear.pitch && ear.pitch.clarity > 0.9 && ear.level > ear.kept.gate ? Math.round(ear.pitch.midi) : undefined,
)
const places = computed(() => {
  const m = midi.value
  if (m === undefined) return []
  return props.instrument.midi
    .map((open, i) => ({ string: i + 1, fret: m - open }))
    .filter((p) => p.fret >= Math.max(0, props.from) && p.fret <= Math.min(props.to, props.instrument.last))
})
</script>

<template>
  <g class="sounding" pointer-events="none">
    <circle v-for="p in places" :key="p.string" :cx="x(p.fret)" :cy="y(p.string)" r="12" />
  </g>
</template>

<style scoped>
circle {
  fill: none;
  stroke: var(--third);
  stroke-width: 3;
  stroke-dasharray: 5 3;
}
</style>
