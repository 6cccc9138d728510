<script setup lang="ts">
import { engrave } from '../music/text'
import { computed } from 'vue'
import type { Blend, Place } from '../api/client'
import SvgMusic from '../music/SvgMusic.vue'
import type { Geometry } from './geometry'
import { holds, type Region } from './region'

/* The palette as short bars on the strings, under everything else. Where a mark lies on one, its ends look out. */
const props = defineProps<{
  g: Geometry
  radius: (fret: number) => number
  shown: (n: { fret: number }) => boolean
  window: Region
  blend: Blend
  /** Where marks lie. */
  marked: Place[]
  label: (n: { degree: string; note: string; fret: number }) => string
  /** Of two joined boxes the one to be in: the other steps back. */
  box?: string
  faded: boolean
}>()

const boxes = { minor: 'the minor box', major: 'the major box', both: 'both boxes' }
const key = (p: Place) => `${p.string}:${p.fret}`
const taken = computed(() => new Set(props.marked.map(key)))
const bars = computed(() =>
  props.blend.places
    .filter((p) => holds(props.window, p) && props.shown(p))
    .map((p) => ({ ...p, note: props.blend.notes[p.index]!, under: taken.value.has(key(p)) })),
)
</script>

<template>
  <g class="layer" :class="{ faded }" data-layer="palette">
    <g
      v-for="(p, i) in bars"
      :key="i"
      class="bar"
      :class="[p.note.box, { aside: box && p.note.box && p.note.box !== 'both' && p.note.box !== box }]"
      :data-palette="key(p)"
      :transform="`translate(${g.fret(p.fret)} ${g.string(p.string)})`"
    >
      <title>{{ engrave(p.note.note) }}, {{ p.note.reason }}{{ p.note.box ? `; of ${boxes[p.note.box]}` : '' }}</title>
      <rect v-if="p.under" :x="-radius(p.fret) - 8" y="-4" :width="2 * radius(p.fret) + 16" height="8" rx="4" />
      <template v-else>
        <rect x="-17" y="-10" width="34" height="20" rx="10" />
        <text text-anchor="middle" y="5"
          ><SvgMusic :symbol="label({ degree: p.note.degree, note: p.note.note, fret: p.fret })" :size="14"
        /></text>
      </template>
    </g>
  </g>
</template>

<style scoped>
.layer {
  transition: opacity 120ms;
}

.faded {
  opacity: 0.16;
}

.bar {
  cursor: pointer;
}

.bar rect {
  fill: var(--soft);
}

.aside {
  opacity: 0.45;
}

/* Of two joined boxes the minor one is filled, the major one hollow; what both have is filled with a rim. */
.major rect {
  fill: var(--paper);
  stroke: var(--soft);
  stroke-width: 2.5;
}

.bar.major text {
  fill: var(--soft);
}

.both rect {
  stroke: var(--ink);
  stroke-width: 2.5;
}

.bar text {
  font-size: 14px;
  font-weight: 600;
  fill: var(--paper);
}
</style>
