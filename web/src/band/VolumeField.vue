<script setup lang="ts">
import { useBand } from './useBand'
import { Slider } from '../shell/parts'
const band = useBand()
</script>

<template>
  <div class="volume">
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
</style>
