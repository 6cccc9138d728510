<script setup lang="ts">
/* What was landed on, week by week: each degree a part of the bar, written in it where there is room. */
import { engrave } from '../../../music/text'
import { computed } from 'vue'
import type { LogMaps } from '../../../api/client'
import { markOf } from '../../../music/marks'

const props = defineProps<{ weeks: LogMaps['weeks'] }>()
const height = 120
const shown = computed(() =>
  props.weeks.slice(-16).map((w) => {
    const all = Object.values(w.degrees).reduce((a, b) => a + b, 0)
    let y = height
    const order = Object.keys(w.degrees).toSorted((a, b) => w.degrees[b]! - w.degrees[a]!)
    return {
      begins: new Date(w.begins),
      all,
      parts: order.map((degree) => {
        const h = (height * w.degrees[degree]!) / all
        y -= h
        return { degree, y, h, n: w.degrees[degree]!, colour: degree === '–' ? 'var(--rule)' : markOf(degree).colour }
      }),
    }
  }),
)
const width = computed(() => 300 / Math.max(8, shown.value.length))
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
</script>

<template>
  <svg :viewBox="`0 0 300 ${height + 18}`" role="img" aria-label="what was landed on, week by week">
    <g v-for="(w, i) in shown" :key="i" :transform="`translate(${i * width} 0)`">
      <g v-for="p in w.parts" :key="p.degree">
        <title>
          {{ day.format(w.begins) }}: {{ p.degree === '–' ? 'not landed' : engrave(p.degree) }}, {{ p.n }} of
          {{ w.all }}
        </title>
        <rect x="1" :y="p.y" :width="width - 2" :height="p.h" :style="{ fill: p.colour }" />
        <text v-if="p.h > 13" class="in" :x="width / 2" :y="p.y + p.h / 2 + 4" text-anchor="middle">
          {{ engrave(p.degree) }}
        </text>
      </g>
      <text v-if="i % 2 === 0" :x="width / 2" :y="height + 14" text-anchor="middle">{{ day.format(w.begins) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 30rem;
}

rect {
  stroke: var(--paper);
}

text {
  font-size: 9px;
  fill: var(--soft);
}

.in {
  font-size: 11px;
  font-weight: 600;
  fill: var(--paper);
}
</style>
