<script setup lang="ts">
/* Signs on the tablature for how a note is played: words above it, lines into and out of its fret, raked strings. */
import { computed } from 'vue'
import type { Written } from '../api/client'

type Sign = NonNullable<Written['signs']>[number]
const props = defineProps<{
  signs: Sign[]
  x: number
  y: number
  /** where words stand */
  above: number
  /** from string to string */
  between: number
  fret: number
  /** a bend stands above it */
  aside?: boolean
}>()
const words = computed(() => props.signs.filter((s) => s.kind === 'words').map((s) => s.text))
const up = (s: Sign) => (s.value > 0 ? 1 : -1)
</script>

<template>
  <g class="signs" pointer-events="none">
    <text v-if="words.length" class="words" :class="{ aside }" :x="aside ? x - 2 : x" :y="above">{{
      words.join(' ')
    }}</text>
    <template v-for="(s, i) in signs" :key="i">
      <line v-if="s.kind === 'in'" :x1="x - 17" :y1="y + 6 * up(s)" :x2="x - 8" :y2="y" />
      <line v-else-if="s.kind === 'out'" :x1="x + 8" :y1="y" :x2="x + 18" :y2="y - 7 * up(s)" />
      <template v-else-if="s.kind === 'back'">
        <path :d="`M ${x + 8} ${y} l 7 ${-6 * up(s)} l 7 ${6 * up(s)}`" />
        <text class="to" :x="x + 15" :y="y + (s.value > 0 ? -8 : 15)">{{ fret + s.value }}</text>
      </template>
      <template v-else-if="s.kind === 'rake'">
        <path
          v-for="k in s.value"
          :key="k"
          :d="`M ${x - 8 - 5 * k - 2.5} ${y + between * k - 2.5} l 5 5 m 0 -5 l -5 5`"
        />
        <path class="sweep" :d="`M ${x - 10 - 5 * s.value} ${y + between * s.value + 6} L ${x - 8} ${y + 5}`" />
      </template>
    </template>
  </g>
</template>

<style scoped>
line,
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}

.sweep {
  stroke-width: 1;
  stroke-dasharray: 3 2;
}

text {
  fill: var(--ink);
  text-anchor: middle;
}

.words {
  font: italic 600 11.5px var(--font-text);
}

.aside {
  text-anchor: end;
}

.to {
  font: 600 11px var(--font-text);
}
</style>
