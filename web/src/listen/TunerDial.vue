<script setup lang="ts">
/* Which string is sounding, and how far it is from where it should be. */
import { computed } from 'vue'
import type { Instrument } from '../api/client'
import MusicText from '../music/MusicText.vue'
import { nearest } from './tuner'

const props = defineProps<{ instrument: Instrument; pitch?: { midi: number; clarity: number } }>()
const at = computed(() => (props.pitch ? nearest(props.pitch.midi, props.instrument) : undefined))
const turn = computed(() => Math.max(-50, Math.min(50, at.value?.cents ?? 0)) * 0.9)
const says = computed(() => {
  if (!at.value) return 'Play an open string.'
  const { cents } = at.value
  if (Math.abs(cents) <= 3) return 'in tune'
  return `${Math.abs(Math.round(cents))} cents ${cents < 0 ? 'flat: tighten' : 'sharp: loosen'}`
})
</script>

<template>
  <div class="tuner" :class="{ true: at && Math.abs(at.cents) <= 3 }">
    <p class="note">
      <MusicText v-if="at" :symbol="at.name" /><small v-if="at">string {{ at.string }}</small>
    </p>
    <svg viewBox="-100 -92 200 100" width="220" aria-hidden="true">
      <path d="M -64 -64 A 90.5 90.5 0 0 1 64 -64" />
      <line v-for="c in [-50, -25, 0, 25, 50]" :key="c" y1="-82" y2="-91" :transform="`rotate(${c * 0.9})`" />
      <line v-if="at" class="needle" y1="0" y2="-84" :transform="`rotate(${turn})`" />
    </svg>
    <p class="says" role="status">{{ says }}</p>
  </div>
</template>

<style scoped>
.tuner {
  display: grid;
  justify-items: center;
  gap: 0.25rem;
  width: 100%;
}

.note {
  font: 600 4rem / 1 var(--font-display);
  min-height: 4rem;
}

small {
  font: 400 var(--text-m) var(--font-text);
  color: var(--soft);
  margin-left: 0.6rem;
}

svg {
  fill: none;
  stroke: var(--soft);
  stroke-width: 2;
}

.needle {
  stroke: var(--third);
  stroke-width: 4;
  stroke-linecap: round;
}

.true .needle {
  stroke: var(--seventh);
}

.says {
  font-size: var(--text-l);
}
</style>
