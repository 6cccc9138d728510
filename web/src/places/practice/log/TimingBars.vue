<script setup lang="ts">
/* How what was played lies about the beat: ahead of it or behind. */
import { computed } from 'vue'
import type { LogMaps } from '../../../api/client'

const props = defineProps<{ timing: LogMaps['timing'] }>()
const most = computed(() => Math.max(1, ...props.timing.bins))
const says = computed(() => {
  const { mean, spread } = props.timing
  const way =
    Math.abs(mean) < 8 ? 'on the beat' : `${Math.abs(Math.round(mean))} ms ${mean > 0 ? 'behind it' : 'ahead of it'}`
  return `${way} as a whole, within ${Math.round(spread)} ms`
})
</script>

<template>
  <figure>
    <svg viewBox="0 0 300 110" role="img" :aria-label="says">
      <rect
        v-for="(n, i) in timing.bins"
        :key="i"
        :x="i * 10 + 1"
        :y="90 - (80 * n) / most"
        width="8"
        :height="(80 * n) / most"
      />
      <line x1="150" x2="150" y1="4" y2="92" />
      <text x="4" y="106">150 ms ahead</text>
      <text x="150" y="106" text-anchor="middle">the beat</text>
      <text x="296" y="106" text-anchor="end">behind</text>
    </svg>
    <figcaption>{{ says }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}

svg {
  width: 100%;
  max-width: 30rem;
}

rect {
  fill: var(--ink);
}

line {
  stroke: var(--third);
  stroke-width: 2;
}

text {
  font-size: 11px;
  fill: var(--soft);
}

figcaption {
  color: var(--soft);
}
</style>
