<script setup lang="ts">
import MarkBadge from './MarkBadge.vue'
import { legend } from './marks'

/* short leaves out the words for the shapes whose label tells. */
defineProps<{ short?: boolean }>()
</script>

<template>
  <ul class="legend" aria-label="legend">
    <li v-for="e in legend" :key="e.degree">
      <MarkBadge :degree="e.degree" :size="22" label="" /> {{ short ? e.short : e.text }}
    </li>
    <li v-if="short"><MarkBadge degree="3" :size="22" label="" hollow /> next</li>
  </ul>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.9rem;
  font-size: var(--text-s);
  color: var(--soft);
}

li {
  display: flex;
  align-items: center;
  gap: 0.3rem;
  white-space: nowrap;
}
</style>
