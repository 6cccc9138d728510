<script setup lang="ts">
/* Back and forth through what was done, each step by its name. */
import Button from 'primevue/button'
import { useCommand } from './useCommands'

const [undo, redo] = [useCommand('undo'), useCommand('redo')]
const step = (title: string) => title.replace(/ \(.*/, '')
</script>

<template>
  <span class="history">
    <Button icon="pi pi-undo" variant="text" v-bind="undo" :aria-label="step(undo.title)" />
    <Button icon="pi pi-refresh" variant="text" v-bind="redo" :aria-label="step(redo.title)" />
  </span>
</template>

<style scoped>
.history {
  white-space: nowrap;
}
</style>
