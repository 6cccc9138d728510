<script setup lang="ts">
/* A dialog with fields, what is wrong with them, and one thing to do. */
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

const open = defineModel<boolean>({ required: true })
defineProps<{ header: string; action: string; trouble?: string; width?: string }>()
const emit = defineEmits<{ done: [] }>()
</script>

<template>
  <Dialog v-model:visible="open" modal :header="header" :style="{ width: `min(${width ?? '40rem'}, 94vw)` }">
    <form class="form" @submit.prevent="emit('done')">
      <slot />
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <p class="do">
        <slot name="beside" />
        <Button type="submit" :label="action" />
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.75rem;
}

.form :deep(.p-select),
.form :deep(textarea),
.form :deep(.p-inputtext:not(.p-inputnumber-input)) {
  width: 100%;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

.do {
  display: flex;
  justify-content: flex-end;
  gap: 0.5rem;
}
</style>
