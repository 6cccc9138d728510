<script setup lang="ts">
/* The text of a file that cannot be read as it is, or one that is pasted, to be mended and read again. It stays as it is typed. */
import { nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import Button from 'primevue/button'
import type { Reading } from '../api/client'
import { readText } from '../api/queries'
import { lineAt, mended, pointAt } from '../sheet/places'
import ProblemList from '../sheet/ProblemList.vue'
import { textOf } from './useBring'

const props = defineProps<{
  file: File
  /** why it cannot be read */
  trouble?: string
  chart: boolean
  /** the line that is to be seen, from 1 */ line?: number
}>()
const emit = defineEmits<{ read: [text: string] }>()
const text = ref<string>()
const field = useTemplateRef<HTMLTextAreaElement>('field')
/** What the core says of the text as it is typed, where it is to be a chart. */
const reading = shallowRef<Reading>()
async function look(now: string | undefined) {
  const read =
    props.chart && now?.trim() ? await readText({ text: now, key: 'C', beats: 4 }).catch(() => undefined) : undefined
  if (now === text.value) reading.value = read
}
watch(
  () => props.file,
  async (file) => void look((text.value = await textOf(file))),
  { immediate: true },
)
watch(text, useDebounceFn(look, 250))
let shown: number | undefined
watch(
  [() => props.line, text],
  async () => {
    await nextTick()
    if (!props.line || props.line === shown || !field.value) return
    shown = props.line
    const { offset, length } = lineAt(text.value ?? '', shown)
    pointAt(field.value, offset, length)
  },
  { immediate: true },
)
</script>

<template>
  <p v-if="trouble && file.size && !reading?.problems.length" class="trouble" role="alert">
    {{ file.name }}: {{ trouble }}
  </p>
  <form v-if="text !== undefined" class="mend" @submit.prevent="emit('read', text)">
    <label for="mend-text">{{
      file.size ? 'Its text, to be mended' : 'Chords between bar lines, ChordPro or tablature'
    }}</label>
    <textarea id="mend-text" ref="field" v-model="text" rows="10" spellcheck="false" wrap="off" />
    <ProblemList
      v-if="reading"
      :problems="reading.problems"
      @point="(offset, length) => pointAt(field!, offset, length)"
      @mend="(...place) => (text = mended(text!, ...place))"
    />
    <p>
      <Button type="submit" :label="file.size ? 'Read it again' : 'Read it'" size="small" variant="outlined" />
      <Button
        v-if="reading?.asH"
        label="Write the names of notes as they are read here"
        size="small"
        variant="outlined"
        @click="text = reading.asH"
      />
    </p>
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

form p {
  display: flex;
  gap: 0.75rem;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}
</style>
