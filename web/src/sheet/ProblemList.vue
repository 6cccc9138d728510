<script setup lang="ts">
/* What of a text cannot be read: each problem leads to its place, and offers what would be read there. */
import Button from 'primevue/button'
import type { Reading } from '../api/client'
import PressButton from '../shell/PressButton.vue'

defineProps<{ problems: Reading['problems'] }>()
defineEmits<{ point: [offset: number, length: number]; mend: [offset: number, length: number, nearest: string] }>()
</script>

<template>
  <ul v-if="problems.length" class="problems" role="alert">
    <li v-for="p in problems.slice(0, 6)" :key="p.offset + p.message">
      <PressButton title="show it in the text" @click="$emit('point', p.offset, p.length)">{{ p.message }}</PressButton>
      <Button
        v-if="p.nearest"
        size="small"
        variant="outlined"
        :label="p.nearest === '%' ? 'Repeat the bar before' : `Write ${p.nearest}`"
        @click="$emit('mend', p.offset, p.length, p.nearest)"
      />
    </li>
  </ul>
</template>

<style scoped>
.problems {
  display: grid;
  gap: 0.4rem;
  margin: 0;
  padding: 0;
  list-style: none;
}

.problems li {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  border-left: 4px solid var(--danger);
  padding-left: 0.6rem;
}

.problems li button:first-child {
  border: 0;
  background: none;
  color: var(--danger);
  text-align: left;
  cursor: pointer;
  padding: 0.3rem 0;
}
</style>
