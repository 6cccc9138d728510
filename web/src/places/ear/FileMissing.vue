<script setup lang="ts">
/* A recording whose file is not beside the database, as after a backup without the files: it is opened again. */
import { ref, useTemplateRef } from 'vue'
import Button from 'primevue/button'
import type { useRecordingChanges } from '../../api/recordings'

const props = defineProps<{ id: number; changes: ReturnType<typeof useRecordingChanges> }>()
const emit = defineEmits<{ kept: [] }>()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const trouble = ref('')
async function take(e: Event) {
  const input = e.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  trouble.value = ''
  if (!file) return
  try {
    await props.changes.put(props.id, file)
    emit('kept')
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <section class="missing">
    <p>
      The file of this recording is not here. What you found in it is: beats, chords, notes and markers. Open the file
      again to hear it.
    </p>
    <Button label="Open the file" icon="pi pi-folder-open" @click="chooser?.click()" />
    <input ref="chooser" type="file" accept="audio/*,video/*" hidden aria-label="the file" @change="take" />
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.missing {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
  padding: 0.75rem 1rem;
  border: 1px solid var(--lit-rule);
  border-radius: var(--round);
}

.missing p {
  flex: 1 1 24rem;
}

.trouble {
  color: var(--danger);
}
</style>
