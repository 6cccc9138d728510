<script setup lang="ts">
/* Swing as it was played, take by take, set against what was asked: a dot for each, a line where the second eighth belongs. */
import { computed } from 'vue'
import type { LogMaps } from '../../../api/client'

const props = defineProps<{ swings: LogMaps['swings'] }>()
const shown = computed(() => props.swings.slice(-60))
const asked = computed(() => [...new Set(shown.value.map((s) => Math.round(100 * s.asked)))])
const x = (swing: number) => 10 + (280 * (Math.min(0.8, Math.max(0.45, swing)) - 0.45)) / 0.35
const y = (i: number) => 82 - (70 * i) / Math.max(1, shown.value.length - 1)
const marks = [
  { at: 0.5, says: 'straight' },
  { at: 2 / 3, says: 'triplets' },
  { at: 0.75, says: 'dotted' },
]
const says = computed(() => {
  const off = shown.value.slice(-12).map((s) => s.played - s.asked)
  const mean = off.reduce((a, b) => a + b, 0) / off.length
  if (Math.abs(mean) < 0.015) return 'of late as much swing as the band'
  return `of late ${mean < 0 ? 'straighter' : 'with more swing'} than the band, by ${Math.round(100 * Math.abs(mean))} % of a beat`
})
</script>

<template>
  <figure>
    <svg viewBox="0 0 300 110" role="img" :aria-label="`the second eighth of the beat: ${says}`">
      <g v-for="m in marks" :key="m.says">
        <line class="mark" :x1="x(m.at)" :x2="x(m.at)" y1="84" y2="92" />
        <text :x="x(m.at)" y="106" text-anchor="middle">{{ m.says }}</text>
      </g>
      <line x1="10" x2="290" y1="88" y2="88" class="mark" />
      <line v-for="a in asked" :key="a" class="asked" :x1="x(a / 100)" :x2="x(a / 100)" y1="6" y2="88" />
      <circle v-for="(s, i) in shown" :key="s.entry" :cx="x(s.played)" :cy="y(i)" r="3.2" />
    </svg>
    <figcaption>{{ says }}; the newest take on top</figcaption>
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

circle {
  fill: var(--ink);
}

.mark {
  stroke: var(--soft);
}

.asked {
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
