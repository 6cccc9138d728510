<script setup lang="ts">
/* The text of a file that cannot be read as it is, or one that is pasted, to be mended and read again. It stays as it is typed. */
import { ref, watch } from 'vue'
import Button from 'primevue/button'
import { textOf } from './useBring'

const props = defineProps<{ file: File }>()
const emit = defineEmits<{ read: [text: string] }>()
const text = ref<string>()
watch(
  () => props.file,
  async (file) => (text.value = await textOf(file)),
  { immediate: true },
)
</script>

<template>
  <form v-if="text !== undefined" class="mend" @submit.prevent="emit('read', text)">
    <label for="mend-text">{{
      file.size ? 'Its text, to be mended' : 'Chords between bar lines, ChordPro or tablature'
    }}</label>
    <textarea id="mend-text" v-model="text" rows="10" spellcheck="false" wrap="off" />
    <p><Button type="submit" :label="file.size ? 'Read it again' : 'Read it'" size="small" variant="outlined" /></p>
  </form>
</template>

<style scoped>
.mend {
  display: grid;
  gap: 0.4rem;
}

label {
  color: var(--soft);
}

textarea {
  width: 100%;
  padding: 0.5rem;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  background: var(--raised);
  color: var(--ink);
  font: 1rem/1.4 var(--font-mono, monospace);
}
</style>
