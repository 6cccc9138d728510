<script setup lang="ts">
import Button from 'primevue/button'
import Toast from 'primevue/toast'
import { useToast } from 'primevue/usetoast'

/* A toast that can take back what it tells of. */
const toast = useToast()
interface Undoable {
  summary: string
  undo: () => void
}
const take = (message: unknown) => {
  ;(message as Undoable).undo()
  toast.remove(message as Undoable) // what else was done can still be taken back
}
</script>

<template>
  <Toast position="bottom-center" group="undo">
    <template #message="{ message }">
      <div class="told">
        <span>{{ message.summary }}</span>
        <Button label="Undo" size="small" variant="outlined" @click="take(message)" />
      </div>
    </template>
  </Toast>
</template>

<style scoped>
.told {
  display: flex;
  align-items: center;
  gap: 1rem;
  flex: 1;
  justify-content: space-between;
}
</style>
