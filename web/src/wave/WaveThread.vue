<script setup lang="ts">
import { engrave } from '../music/text'
import type { Target } from '../api/client'
import MarkShape from '../music/MarkShape.vue'

/* The thread with its targets. */
defineProps<{
  points: { t: Target; i: number; x: number; y: number }[]
  line: string
  radius: number
  label: (n: Target) => string
}>()
const emit = defineEmits<{ go: [step: number] }>()
</script>

<template>
  <g>
    <path class="thread" :d="line" />
    <g
      v-for="(p, k) in points"
      :key="k"
      class="target"
      :data-target="p.i"
      :transform="`translate(${p.x} ${p.y})`"
      @click="emit('go', p.i)"
    >
      <title>
        {{ engrave(p.t.degree) }}, {{ engrave(p.t.note) }} at {{ p.t.string }}:{{ p.t.fret
        }}{{ p.t.pinned ? ', chosen by hand' : '' }}
      </title>
      <circle v-if="p.t.pinned" class="pinned" :r="radius + 4" />
      <MarkShape :degree="p.t.degree" :label="radius > 8 ? label(p.t) : ''" :r="radius" />
      <path v-if="p.t.against" class="rub" :d="`M ${-radius} ${radius + 6} q 3 -4 6 0 t 6 0 t 6 0`" />
    </g>
  </g>
</template>

<style scoped>
.thread {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.6;
  pointer-events: none;
}

.target {
  cursor: pointer;
}

.pinned {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 3;
}

.rub {
  fill: none;
  stroke: var(--danger);
  stroke-width: 2.4;
}
</style>
