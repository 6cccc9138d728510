<script setup lang="ts">
import { ref } from 'vue'
import Button from 'primevue/button'
import { useTitle } from '@vueuse/core'
import type { ChartRow } from '../../api/client'
import { chartBody, readChart, useChartChanges, useFoundCharts } from '../../api/queries'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import ShelfPlace from '../../shell/ShelfPlace.vue'
import ShelfRow from '../../shell/ShelfRow.vue'
import BringDialog from '../../making/BringDialog.vue'

useTitle('Charts · Undaris')
const sought = ref('')
const charts = useFoundCharts(() => ({ find: sought.value }))
const changes = useChartChanges()
const bringing = ref(false)

const opening = (c: ChartRow) => c.chords.split(' ').slice(0, 6)
const copy = async (row: ChartRow) => {
  const chart = await readChart(row.id)
  await changes.create.mutateAsync({ ...chartBody(chart), title: `${chart.title} (copy)`.slice(0, 120) })
}
</script>

<template>
  <ShelfPlace
    v-if="charts.rows"
    v-model="sought"
    class="charts"
    title="Charts"
    one="chart"
    by="title, key, chord or tag"
    :found="charts"
  >
    <template #begin>
      <Button as="router-link" :to="{ name: 'sets' }" label="Sets" variant="outlined" />
      <Button label="Import" icon="pi pi-upload" variant="outlined" @click="bringing = true" />
      <Button as="router-link" :to="{ name: 'new' }" icon="pi pi-plus" label="New chart" />
    </template>
    <template #default="{ item: c }">
      <ShelfRow
        :to="{ name: 'bench', params: { id: c.id } }"
        :of="c.key"
        :name="c.title"
        :about="
          c.problem ?? `${c.bars} bars · ${c.feelName} · ${c.tempo} beats a minute${c.tags ? ` · ${c.tags}` : ''}`
        "
        :begins="opening(c)"
      >
        <Button
          as="router-link"
          :to="{ name: 'edit', params: { id: c.id } }"
          variant="text"
          icon="pi pi-pencil"
          :aria-label="`edit ${c.title}`"
        />
        <Button
          as="a"
          :href="`/api/charts/${c.id}/files/midi?intro=own&ending=own`"
          download
          variant="text"
          icon="pi pi-download"
          title="the band playing three choruses, repeats written out, as a MIDI file: what sounds, without remarks and capo"
          :aria-label="`the band playing ${c.title}, as a MIDI file`"
        />
        <Button variant="text" icon="pi pi-copy" :aria-label="`copy ${c.title}`" @click="copy(c)" />
        <Button variant="text" icon="pi pi-trash" :aria-label="`delete ${c.title}`" @click="changes.remove(c)" />
      </ShelfRow>
    </template>
    <template #dialogs><BringDialog v-model="bringing" as="chart" /></template>
    <template #empty>
      <EmptyPlace
        title="No charts yet"
        text="A chart is what the band plays: a twelve-bar in some key, or the chords of a song. Make one, and its map is ready."
      >
        <Button as="router-link" :to="{ name: 'new' }" label="Make a chart" />
      </EmptyPlace>
    </template>
  </ShelfPlace>
  <EmptyPlace v-else-if="charts.error" title="No answer" :text="charts.error.message" />
</template>
