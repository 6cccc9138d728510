<script setup lang="ts">
/* All lines; new ones are begun here, and files brought in. */
import { useTitle } from '@vueuse/core'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { useLineChanges, useLines } from '../../api/kept'
import MusicText from '../../music/MusicText.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import ImportDialog from './ImportDialog.vue'
import NewLineDialog from './NewLineDialog.vue'

useTitle('Lines · Undaris')
const lines = useLines()
const changes = useLineChanges()
const sought = ref('')
const shown = computed(() =>
  (lines.data.value ?? []).filter((l) => `${l.title} ${l.key}`.toLowerCase().includes(sought.value.toLowerCase())),
)
const making = ref(false)
const bringing = ref(false)
</script>

<template>
  <main v-if="lines.data.value" class="lines">
    <header>
      <h1>Lines</h1>
      <InputText
        v-if="lines.data.value.length"
        v-model="sought"
        placeholder="find by title or key"
        aria-label="find a line"
      />
      <Button label="Import" icon="pi pi-upload" variant="outlined" @click="bringing = true" />
      <Button label="New line" icon="pi pi-plus" @click="making = true" />
    </header>
    <ul v-if="lines.data.value.length">
      <li v-for="l in shown" :key="l.id">
        <RouterLink :to="{ name: 'line', params: { id: l.id } }">
          <span class="key"><MusicText :text="l.key" /></span>
          <span class="text">
            <b>{{ l.title }}</b>
            <span class="meta"
              >{{ l.bars }} bars · {{ l.notes.length }} notes · frets {{ l.low }} to {{ l.high }} · {{ l.tempo }} beats
              a minute</span
            >
          </span>
        </RouterLink>
        <Button
          as="a"
          :href="`/api/lines/${l.id}/musicxml`"
          download
          variant="text"
          icon="pi pi-download"
          title="as MusicXML"
          :aria-label="`${l.title} as MusicXML`"
        />
        <Button variant="text" icon="pi pi-trash" :aria-label="`delete ${l.title}`" @click="changes.remove(l)" />
      </li>
    </ul>
    <EmptyPlace
      v-else
      title="No lines yet"
      text="A line is a solo on staff and tablature over the chords of a chart: written by hand, from licks, or by the core, and checked note by note."
    >
      <Button label="Begin a line" @click="making = true" />
    </EmptyPlace>
    <p v-if="lines.data.value.length && !shown.length" class="meta">No line has “{{ sought }}” in its title or key.</p>
    <NewLineDialog v-model="making" />
    <ImportDialog v-model="bringing" />
  </main>
  <EmptyPlace v-else-if="lines.error.value" title="No answer" :text="lines.error.value.message" />
</template>

<style scoped>
.lines {
  padding: 1rem 1.25rem 2rem;
}

header {
  display: flex;
  align-items: center;
  gap: 1rem;
  margin-bottom: 1rem;
  flex-wrap: wrap;
}

h1 {
  font-size: 2rem;
  flex: 1;
}

li {
  display: flex;
  align-items: center;
  border-top: 1px solid var(--rule);
}

li:last-child {
  border-bottom: 1px solid var(--rule);
}

li:hover {
  background: var(--raised);
}

li a:first-child {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr);
  align-items: center;
  gap: 1rem;
  padding: 0.8rem 0.5rem;
  text-decoration: none;
}

.key {
  font: 600 2rem/1 var(--font-display);
}

.text {
  display: grid;
  min-width: 0;
}

b {
  font-size: var(--text-l);
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
}

.meta {
  color: var(--soft);
}
</style>
