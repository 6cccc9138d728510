<script setup lang="ts">
/* What leads to the first bar: over its last beats, with where they would stand in a bar. */
import type { Sheet } from '../api/client'
import MusicText from '../music/MusicText.vue'

const props = defineProps<{
  pickup: NonNullable<Sheet['pickup']>
  /** The beat that is heard, from the top; before it they are negative. */
  beat?: number
}>()
const heard = () => props.beat !== undefined && props.beat < 0 && props.beat >= -props.pickup.beats
</script>

<template>
  <p class="pickup" :class="{ heard: heard() }">
    <span class="name">pickup</span>
    <span v-for="c in pickup.changes" :key="c.beat" class="lead">
      <small>on {{ c.beat }}</small>
      <b><MusicText :symbol="c.chord" /></b>
      <small><MusicText :symbol="c.numeral" /></small>
    </span>
  </p>
</template>

<style scoped>
.pickup {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 1rem;
  margin: 0;
  padding: 0.15rem 0.7rem;
  border-bottom: 1px dashed var(--rule);
}

.lead {
  display: inline-flex;
  align-items: baseline;
  gap: 0.4rem;
}

.heard {
  background: var(--lit);
}

.name,
small {
  color: var(--soft);
  font-size: var(--text-s);
}

b {
  font: 700 1.15rem/1.1 var(--font-display);
}
</style>
