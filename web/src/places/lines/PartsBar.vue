<script setup lang="ts">
/* Which part of the line is learned now, on which rung, and what comes before and after. */
import Button from 'primevue/button'
import type { Parts } from './useParts'

const { parts } = defineProps<{ parts: Parts }>()
</script>

<template>
  <p v-if="parts.on.value" class="parts" role="status">
    <Button
      icon="pi pi-chevron-left"
      variant="text"
      aria-label="the stretch before"
      :disabled="!parts.step.value"
      @click="parts.go(-1)"
    />
    <b>{{ parts.name.value }} of {{ parts.of.value }}</b>
    <span>{{ parts.bars.value }}, at {{ parts.rung.value?.tempo }}</span>
    <small>{{
      ['clean three times in a row, and the next comes', 'once clean: twice more', 'twice clean: once more'][
        parts.rung.value?.row ?? 0
      ]
    }}</small>
    <Button
      icon="pi pi-chevron-right"
      variant="text"
      aria-label="the next stretch"
      :disabled="parts.step.value >= parts.steps.value - 1"
      @click="parts.go(1)"
    />
    <Button label="The whole line" variant="outlined" @click="parts.turn" />
  </p>
</template>

<style scoped>
.parts {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.25rem 0.75rem;
  grid-column: 1 / -1;
}

b {
  font: 600 var(--text-l) var(--font-display);
}

small {
  color: var(--soft);
}
</style>
