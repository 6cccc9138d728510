<script setup lang="ts">
/* The notes of a line as a list of words: for who cannot see them, or would rather read. */
import { computed } from 'vue'
import { useCatalogue } from '../../api/queries'
import PressButton from '../../shell/PressButton.vue'
import { noteSaid } from './said'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; chosen?: number }>()
const emit = defineEmits<{ note: [id: number] }>()
const catalogue = useCatalogue()
const all = computed(() => {
  const study = props.state.study.value
  const ways = catalogue.data.value?.ways ?? []
  if (!study) return []
  const notes = (props.state.line.value?.notes ?? []).toSorted((a, b) => a.start - b.start)
  return notes.map((n) => ({ id: n.id ?? 0, says: noteSaid(n, props.state.known.value.get(n.id ?? 0), study, ways) }))
})
</script>

<template>
  <section class="list" aria-labelledby="note-list">
    <h2 id="note-list">
      Notes <small>{{ all.length }}</small>
    </h2>
    <ol>
      <li v-for="n in all" :key="n.id">
        <PressButton :aria-current="n.id === chosen ? 'true' : undefined" @click="emit('note', n.id)">{{
          n.says
        }}</PressButton>
      </li>
    </ol>
    <p v-if="!all.length">No note is written yet.</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--text-l);
}

small,
p {
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
}

button {
  width: 100%;
  min-height: var(--target);
  padding: 0.3rem 0.4rem;
  border: 0;
  border-top: 1px solid var(--rule);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  text-align: left;
  cursor: pointer;
}

[aria-current] {
  background: var(--lit);
}
</style>
