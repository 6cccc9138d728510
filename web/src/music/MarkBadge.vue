<script setup lang="ts">
import MarkShape from './MarkShape.vue'

/* A mark by itself, in running text or a table. */
withDefaults(defineProps<{ degree: string; size?: number; label?: string; hollow?: boolean }>(), {
  size: 28,
  label: undefined,
})
</script>

<template>
  <svg :width="size" :height="size" :viewBox="`0 0 ${size} ${size}`" aria-hidden="true" class="badge">
    <g :transform="`translate(${size / 2} ${size / 2})`">
      <MarkShape :degree="degree" :r="size * 0.41" :label="label ?? degree" :hollow="hollow" />
    </g>
  </svg>
</template>

<style scoped>
.badge {
  flex: none;
  vertical-align: middle;
  font-family: var(--font-text);
}
</style>
