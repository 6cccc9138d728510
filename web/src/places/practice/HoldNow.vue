<script setup lang="ts">
/* What is held to now, large enough for the other end of the room, and what comes next. */
import MusicText from '../../music/MusicText.vue'
import type { HoldingNow } from './useHolding'

defineProps<{ holding: HoldingNow }>()
</script>

<template>
  <p class="held" aria-live="polite">
    <b v-for="h in holding.here.value.now" :key="h.kind"><MusicText :said="h.says" /></b>
    <small v-if="holding.here.value.next.length">
      in {{ holding.bars(holding.here.value.at) }} {{ holding.bars(holding.here.value.at) === 1 ? 'bar' : 'bars' }}:
      <MusicText :said="holding.here.value.next.map((h) => h.says).join(', ')" />
    </small>
  </p>
</template>

<style scoped>
.held {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 0.25rem 1.25rem;
  margin-top: 0.4rem;
}

b {
  font: 600 clamp(1.4rem, 3vw, 2.2rem) / 1.15 var(--font-display);
  color: var(--third);
}

small {
  font-size: var(--text-l);
  color: var(--soft);
}
</style>
