<script setup lang="ts">
import Slider from 'primevue/slider'
import { useBand } from './useBand'
import PressButton from '../shell/PressButton.vue'

/* The caution stands here once, and can be read again under Help. */
const band = useBand()
</script>

<template>
  <div class="volume" :class="{ first: !band.settings.cautioned }">
    <p v-if="!band.settings.cautioned && band.playing" class="caution" role="note">
      Loud practice harms hearing, from amplifiers and headphones alike: keep the level where talk is possible, and rest
      the ears every 20 to 25 minutes.
      <PressButton @click="band.settings.cautioned = true">Understood</PressButton>
    </p>
    <i class="pi pi-volume-up" aria-hidden="true" />
    <Slider v-model="band.settings.volume" :min="0" :max="1" :step="0.05" aria-label="volume" />
  </div>
</template>

<style scoped>
.volume {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  min-height: var(--target);
}

.volume :deep(.p-slider) {
  width: 4.5rem;
}

.caution {
  position: fixed;
  right: 1.25rem;
  bottom: 4.5rem;
  width: min(24rem, 90vw);
  padding: 0.75rem 1rem;
  background: var(--lit);
  border: 2px solid var(--lit-rule);
  border-radius: var(--round);
}

.caution button {
  display: block;
  margin: 0.5rem 0 0 auto;
  min-height: var(--target);
  padding: 0 1rem;
  border: 2px solid var(--ink);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}
</style>
