<script setup lang="ts">
/* How long was played, week by week. */
import { computed } from 'vue'
import type { LogMaps } from '../../../api/client'

const props = defineProps<{ minutes: LogMaps['minutes'] }>()
const shown = computed(() => props.minutes.slice(-16))
const most = computed(() => Math.max(1, ...shown.value.map((w) => w.minutes)))
const width = computed(() => 300 / Math.max(8, shown.value.length))
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
</script>

<template>
  <svg viewBox="0 0 300 110" role="img" aria-label="minutes played, week by week">
    <g v-for="(w, i) in shown" :key="w.begins" :transform="`translate(${i * width} 0)`">
      <title>
        {{ day.format(new Date(w.begins)) }}: {{ Math.round(w.minutes) }}
        {{ Math.round(w.minutes) === 1 ? 'minute' : 'minutes' }}
      </title>
      <rect x="2" :y="92 - (76 * w.minutes) / most" :width="width - 4" :height="(76 * w.minutes) / most" />
      <text :x="width / 2" :y="88 - (76 * w.minutes) / most" text-anchor="middle">{{ Math.round(w.minutes) }}</text>
      <text v-if="i % 2 === 0" :x="width / 2" y="106" text-anchor="middle">{{ day.format(new Date(w.begins)) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 30rem;
}

rect {
  fill: var(--ink);
}

text {
  font-size: 10px;
  fill: var(--soft);
}
</style>
