<script setup lang="ts">
import { computed } from 'vue'
import type { Instrument } from '../api/client'
import SvgMusic from '../music/SvgMusic.vue'
import { dots, doubleDots, type Frame, type Geometry } from './geometry'

/* The neck itself in ink: wires, strings, names and dots. It is drawn once and stays while chords go by. */
const props = defineProps<{ g: Geometry; frame: Frame; instrument: Instrument; unnamed?: boolean }>()
const strings = computed(() => Array.from({ length: props.g.strings }, (_, i) => i + 1))
const frets = computed(() =>
  Array.from({ length: props.frame.to - props.frame.from + 1 }, (_, i) => props.frame.from + i),
)
const shown = (n: number) => n >= props.frame.from && n <= props.frame.to
</script>

<template>
  <g>
    <g class="dots">
      <template v-for="n in dots.filter(shown)" :key="n">
        <template v-if="doubleDots.includes(n)">
          <circle :cx="g.fret(n)" :cy="g.string(1) + g.gap * 1.5" r="5" />
          <circle :cx="g.fret(n)" :cy="g.string(g.strings) - g.gap * 1.5" r="5" />
        </template>
        <circle v-else :cx="g.fret(n)" :cy="(g.string(1) + g.string(g.strings)) / 2" r="5" />
      </template>
    </g>
    <line
      v-for="n in frets"
      :key="'w' + n"
      :class="n === 0 ? 'nut' : 'wire'"
      :x1="g.wire(n)"
      :x2="g.wire(n)"
      :y1="g.string(1)"
      :y2="g.string(g.strings)"
    />
    <g v-for="s in strings" :key="'s' + s">
      <line
        class="string"
        :x1="frame.from === 0 ? g.wire(0) : g.wire(frame.from - 1)"
        :x2="g.wire(frame.to)"
        :y1="g.string(s)"
        :y2="g.string(s)"
        :stroke-width="0.8 + s * 0.26"
      />
      <text v-if="!unnamed" class="name" :x="g.names" :y="g.string(s) + 5" text-anchor="middle">
        <SvgMusic :symbol="instrument.open[s - 1]!" :size="15" />
      </text>
    </g>
  </g>
</template>

<style scoped>
.dots circle {
  fill: var(--rule);
  opacity: 0.7;
}

.wire {
  stroke: var(--rule);
  stroke-width: 1.6;
}

.nut {
  stroke: var(--ink);
  stroke-width: 5;
}

.string {
  stroke: var(--ink);
  opacity: 0.7;
}

.name {
  font-size: 15px;
  font-weight: 600;
  fill: var(--soft);
}
</style>
