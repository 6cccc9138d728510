<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { useToast } from 'primevue/usetoast'
import { useTitle } from '@vueuse/core'
import type { Chart } from '../../api/client'
import { useChartChanges, useCharts } from '../../api/queries'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import MusicText from '../../music/MusicText.vue'

useTitle('Charts · Undaris')
const charts = useCharts()
const changes = useChartChanges()
const toast = useToast()
const sought = ref('')
const shown = computed(() => {
  const words = sought.value.toLowerCase().replaceAll('♭', 'b').replaceAll('♯', '#')
  return (charts.data.value ?? []).filter((c) =>
    `${c.title} ${c.key} ${c.feelName} ${c.text}`.toLowerCase().includes(words),
  )
})

const opening = (c: Chart) => c.text.split('\n')[0]!.replaceAll('|', ' ').trim().split(/\s+/).slice(0, 6)
async function remove(c: Chart) {
  await changes.remove.mutateAsync(c.id)
  const message = { group: 'undo', severity: 'secondary' as const, summary: `“${c.title}” is deleted.`, life: 12000 }
  toast.add({ ...message, undo: () => changes.restore.mutate(c.id) } as typeof message)
}
const copy = (c: Chart) =>
  changes.create.mutateAsync({
    title: `${c.title} (copy)`.slice(0, 120),
    key: c.key,
    feel: c.feel,
    tempo: c.tempo,
    beats: c.beats,
    text: c.text,
  })
</script>

<template>
  <main v-if="charts.data.value?.length" class="charts">
    <header>
      <h1>Charts</h1>
      <InputText v-model="sought" placeholder="find by title, key or chord" aria-label="find a chart" />
      <Button as="router-link" :to="{ name: 'new' }" icon="pi pi-plus" label="New chart" />
    </header>
    <ul>
      <li v-for="c in shown" :key="c.id">
        <RouterLink class="open" :to="{ name: 'bench', params: { id: c.id } }">
          <span class="key"><MusicText :text="c.key" /></span>
          <span class="text">
            <b>{{ c.title }}</b>
            <span class="meta">{{ c.bars }} bars · {{ c.feelName }} · {{ c.tempo }} beats a minute</span>
          </span>
          <span class="begins"><MusicText v-for="(s, i) in opening(c)" :key="i" :text="s" /></span>
        </RouterLink>
        <span class="do">
          <Button
            as="router-link"
            :to="{ name: 'edit', params: { id: c.id } }"
            variant="text"
            icon="pi pi-pencil"
            :aria-label="`edit ${c.title}`"
          />
          <Button
            as="a"
            :href="`/api/charts/${c.id}/midi`"
            download
            variant="text"
            icon="pi pi-download"
            title="the band playing three choruses, as a MIDI file"
            :aria-label="`the band playing ${c.title}, as a MIDI file`"
          />
          <Button variant="text" icon="pi pi-copy" :aria-label="`copy ${c.title}`" @click="copy(c)" />
          <Button variant="text" icon="pi pi-trash" :aria-label="`delete ${c.title}`" @click="remove(c)" />
        </span>
      </li>
    </ul>
    <p v-if="!shown.length" class="none">No chart has “{{ sought }}” in its title, key or chords.</p>
  </main>
  <EmptyPlace v-else-if="charts.error.value" title="No answer" :text="charts.error.value.message" />
  <EmptyPlace
    v-else-if="charts.data.value"
    title="No charts yet"
    text="A chart is what the band plays: a twelve-bar in some key, or the chords of a song. Make one, and its map is ready."
  >
    <Button as="router-link" :to="{ name: 'new' }" label="Make a chart" />
  </EmptyPlace>
</template>

<style scoped>
.charts {
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

header :deep(input) {
  width: 18rem;
}

li {
  display: flex;
  align-items: center;
  border-top: 1px solid var(--rule);
}

li:last-child {
  border-bottom: 1px solid var(--rule);
}

.open {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1.2fr) minmax(0, 1fr);
  align-items: center;
  gap: 1rem;
  padding: 0.8rem 0.5rem;
  text-decoration: none;
}

li:hover {
  background: var(--raised);
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

.meta,
.none {
  color: var(--soft);
}

.begins {
  display: flex;
  gap: 0.9rem;
  font: 600 1.125rem var(--font-display);
  overflow: hidden;
}

.do {
  display: flex;
}

@media (max-width: 820px) {
  .begins {
    display: none;
  }

  .open {
    grid-template-columns: 3.2rem minmax(0, 1fr);
  }
}
</style>
