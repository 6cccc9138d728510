<script setup lang="ts">
/* A short label and its field on one line. */
defineProps<{ label: string; for?: string }>()
</script>

<template>
  <div class="field">
    <label :for="$props.for">{{ label }}</label>
    <div class="value"><slot /></div>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr);
  align-items: center;
  gap: 0.5rem;
  min-height: var(--target);
}

.value {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-width: 0;
}

.value :deep(.p-select) {
  width: 100%;
}
</style>
