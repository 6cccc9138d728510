<script setup lang="ts">
import { computed } from 'vue'
import { labelDrop, markOf, outline } from './marks'
import SvgMusic from './SvgMusic.vue'

/* One mark around the origin of an SVG. hollow is the outline of an arrival. */
const props = defineProps<{ degree: string; r: number; label?: string; hollow?: boolean }>()
const mark = computed(() => markOf(props.degree))
const open = computed(() => props.hollow || mark.value.shape === 'ring')
const size = computed(() => {
  const long = (props.label ?? '').length
  const room = mark.value.shape === 'diamond' ? 0.94 : 1.08
  /* Twelve pixels are read from a chair's distance; a mark that is too small for them gives what it can. */
  const least = Math.min(12, props.r * (long > 2 ? 1.04 : 1.3))
  return Math.max(least, props.r * (long > 2 ? room * 0.82 : long > 1 ? room * 0.9 : room))
})
</script>

<template>
  <g>
    <path
      :d="outline(mark.shape, r)"
      :fill="open ? 'var(--paper)' : mark.colour"
      :stroke="mark.colour"
      :stroke-width="open ? Math.max(1.6, r * 0.15) : 1"
      stroke-linejoin="round"
    />
    <text
      v-if="label"
      text-anchor="middle"
      :y="labelDrop[mark.shape] * r + size * 0.34"
      :font-size="size"
      font-weight="700"
      :fill="open ? mark.colour : 'var(--paper)'"
    >
      <SvgMusic :symbol="label" :size="size" />
    </text>
  </g>
</template>
