<script setup lang="ts">
import { computed } from 'vue'
import { engrave, pieces } from './text'

/* Music text inside an SVG text element: accidentals are raised in line with their neighbours, and back again. */
const props = defineProps<{ symbol: string; size: number }>()
const parts = computed(() => {
  const lift = props.size * 0.07
  let raised = false
  return pieces(engrave(props.symbol)).map((p) => {
    const dy = p.accidental ? -lift : raised ? lift : 0
    raised = p.accidental
    return { ...p, dy }
  })
})
</script>

<template>
  <tspan v-for="(p, i) in parts" :key="i" :class="{ acc: p.accidental }" :dy="p.dy">{{ p.text }}</tspan>
</template>
