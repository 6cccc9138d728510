<script setup lang="ts">
/* The twelve keys round the circle, the five positions as rings: how likely each succeeds today, in tenths. */
import { computed } from 'vue'
import type { LogMaps } from '../../../api/client'
import { engrave } from '../../../music/text'
import SvgMusic from '../../../music/SvgMusic.vue'
import { ink, told } from './tenths'

type Cell = LogMaps['cells'][number]
const props = defineProps<{ cells: Cell[]; chosen?: Cell }>()
const emit = defineEmits<{ choose: [cell: Cell] }>()
const size = 420
const inner = 52
const ring = 24
const round = [0, 5, 10, 3, 8, 1, 6, 11, 4, 9, 2, 7] // by fourths
const at = (turn: number, r: number) => {
  const a = ((turn / 12) * 2 - 0.5) * Math.PI
  return [size / 2 + r * Math.cos(a), size / 2 + r * Math.sin(a)] as const
}
const drawn = computed(() =>
  props.cells.map((cell) => {
    const turn = round.indexOf(cell.class)
    const [r, R] = [inner + (cell.position - 1) * ring, inner + cell.position * ring - 2]
    const [a, b] = [turn - 0.48, turn + 0.48]
    const p = [at(a, R), at(b, R), at(b, r), at(a, r)].map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`)
    const [x, y] = at(turn, (r + R) / 2)
    return { cell, x, y, d: `M${p[0]}A${R} ${R} 0 0 1 ${p[1]}L${p[2]}A${r} ${r} 0 0 0 ${p[3]}Z` }
  }),
)
const names = computed(() =>
  round.map((key, turn) => {
    const [x, y] = at(turn, inner + 5 * ring + 15)
    return { x, y, name: props.cells.find((c) => c.class === key)?.key ?? '' }
  }),
)
const name = (c: Cell) => told(`${engrave(c.key)}, ${c.where}`, c)
</script>

<template>
  <svg :viewBox="`0 0 ${size} ${size}`" class="wheel" role="group" aria-label="keys and positions">
    <g
      v-for="{ cell, d, x, y } in drawn"
      :key="`${cell.class} ${cell.position}`"
      class="cell"
      :class="{ chosen: cell === chosen }"
      role="button"
      tabindex="0"
      :aria-label="name(cell)"
      :data-cell="`${cell.key} ${cell.position}`"
      @click="emit('choose', cell)"
      @keydown.enter="emit('choose', cell)"
    >
      <title>{{ name(cell) }}</title>
      <path :d="d" :style="cell.trials ? { fill: ink(cell.strength) } : undefined" />
      <text v-if="cell.trials" :x="x" :y="y + 4" text-anchor="middle">{{ Math.round(10 * cell.strength) }}</text>
    </g>
    <text v-for="n in names" :key="n.name" class="name" :x="n.x" :y="n.y + 6" text-anchor="middle">
      <SvgMusic :symbol="n.name" :size="17" />
    </text>
    <text :x="size / 2" :y="size / 2 - 2" class="hub" text-anchor="middle">of ten,</text>
    <text :x="size / 2" :y="size / 2 + 13" class="hub" text-anchor="middle">today</text>
  </svg>
</template>

<style scoped>
.wheel {
  width: 100%;
  max-width: 26rem;
}

path {
  fill: var(--raised);
  stroke: var(--rule);
  stroke-width: 1;
}

.cell {
  cursor: pointer;
}

.cell text {
  font-size: 12px;
  font-weight: 600;
  fill: var(--paper);
  pointer-events: none;
}

.cell:focus-visible path,
.cell.chosen path,
.cell:hover path {
  stroke: var(--third);
  stroke-width: 3;
}

.name {
  font: 600 17px var(--font-display);
  fill: var(--ink);
}

.hub {
  font-size: 12px;
  fill: var(--soft);
}
</style>
