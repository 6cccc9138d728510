<script setup lang="ts">
/* Back and forth through what was done, each step by its name. */
import type { Ref } from 'vue'
import Button from 'primevue/button'

defineProps<{
  history: {
    undo: () => unknown
    redo: () => unknown
    canUndo: Ref<boolean>
    canRedo: Ref<boolean>
    undoName: Ref<string>
    redoName: Ref<string>
  }
}>()
</script>

<template>
  <span class="history">
    <Button
      icon="pi pi-undo"
      variant="text"
      :aria-label="`undo ${history.undoName.value}`"
      :title="history.undoName.value && `undo ${history.undoName.value}`"
      :disabled="!history.canUndo.value"
      @click="history.undo"
    />
    <Button
      icon="pi pi-refresh"
      variant="text"
      :aria-label="`redo ${history.redoName.value}`"
      :title="history.redoName.value && `redo ${history.redoName.value}`"
      :disabled="!history.canRedo.value"
      @click="history.redo"
    />
  </span>
</template>

<style scoped>
.history {
  white-space: nowrap;
}
</style>
