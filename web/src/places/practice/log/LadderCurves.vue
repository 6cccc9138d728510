<script setup lang="ts">
/* How the tempo of each exercise went: a curve for each, named at its end. */
import { computed } from 'vue'
import type { LogMaps } from '../../../api/client'

const props = defineProps<{ ladders: LogMaps['ladders'] }>()
const shown = computed(() => props.ladders.toSorted((a, b) => b.rungs.length - a.rungs.length).slice(0, 5))
const all = computed(() => shown.value.flatMap((l) => l.rungs))
const tempi = computed(() => [
  10 * Math.floor(Math.min(...all.value.map((r) => r.tempo)) / 10) - 10,
  10 * Math.ceil(Math.max(...all.value.map((r) => r.tempo)) / 10) + 10,
])
const days = computed(() => {
  const at = all.value.map((r) => new Date(r.at).getTime())
  return [Math.min(...at), Math.max(...at, Math.min(...at) + 864e5)]
})
const x = (at: string) => 30 + (190 * (new Date(at).getTime() - days.value[0]!)) / (days.value[1]! - days.value[0]!)
const y = (tempo: number) => 110 - (100 * (tempo - tempi.value[0]!)) / (tempi.value[1]! - tempi.value[0]!)
const curve = (l: LogMaps['ladders'][number]) =>
  l.rungs.map((r) => `${x(r.at).toFixed(1)},${y(r.tempo).toFixed(1)}`).join(' ')
const lines = computed(() => [0, 1].map((p) => Math.round(tempi.value[0]! + p * (tempi.value[1]! - tempi.value[0]!))))
const dash = ['', '6 3', '2 3', '8 3 2 3', '1 4']
</script>

<template>
  <figure>
    <svg viewBox="0 0 300 120" role="img" aria-label="tempi reached, over time">
      <g v-for="t in lines" :key="t">
        <line x1="28" x2="224" :y1="y(t)" :y2="y(t)" />
        <text x="24" :y="y(t) + 4" text-anchor="end">{{ t }}</text>
      </g>
      <g v-for="(l, i) in shown" :key="l.title">
        <polyline :points="curve(l)" :stroke-dasharray="dash[i]" />
        <circle :cx="x(l.rungs.at(-1)!.at)" :cy="y(l.rungs.at(-1)!.tempo)" r="3.5" />
        <text class="at" :x="x(l.rungs.at(-1)!.at) + 7" :y="y(l.rungs.at(-1)!.tempo) + 4">
          {{ l.rungs.at(-1)!.tempo }}
        </text>
      </g>
    </svg>
    <figcaption>
      <span v-for="(l, i) in shown" :key="l.title">
        <svg viewBox="0 0 24 6" class="key" aria-hidden="true">
          <polyline points="0,3 24,3" :stroke-dasharray="dash[i]" />
        </svg>
        {{ l.title }}
      </span>
    </figcaption>
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

.key {
  width: 1.5rem;
}

line {
  stroke: var(--rule);
}

polyline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

circle {
  fill: var(--third);
}

text {
  font-size: 11px;
  fill: var(--soft);
}

.at {
  fill: var(--ink);
  font-weight: 600;
}

figcaption {
  display: grid;
  gap: 0.1rem;
  color: var(--soft);
}
</style>
