<script setup lang="ts">
/* A line on paper, as players of another reading write it. */
import { useQuery } from '@tanstack/vue-query'
import { useTitle } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import Button from 'primevue/button'
import Select from 'primevue/select'
import { answer, api } from '../../api/client'
import PictureButton from '../../drawing/PictureButton.vue'
import MusicText from '../../music/MusicText.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import TickBox from '../../shell/TickBox.vue'
import { useReading } from '../../shell/useReading'
import { useAddress } from '../../shell/useAddress'

const address = useAddress()
const { id } = address
const { readings, reading, about } = useReading()
const plain = address.yes('plain')
const fingers = ref(false)
const query = computed(() => ({ reading: reading.value, plain: plain.value }))
const score = useQuery({
  queryKey: ['line', id, 'paper', query],
  queryFn: () => answer(api.GET('/api/lines/{id}/score', { params: { path: { id: id.value }, query: query.value } })),
})
const link = computed(
  () => `/api/lines/${id.value}/files/musicxml?reading=${reading.value}${plain.value ? '&plain=true' : ''}`,
)
const title = computed(() => score.data.value?.title ?? '')
useTitle(computed(() => `${title.value} on paper · Undaris`))
const print = () => window.print()
const page = useTemplateRef('page')
</script>

<template>
  <div v-if="score.data.value" class="paper">
    <header>
      <h1>On paper</h1>
      <RouterLink :to="{ name: 'line', params: { id } }">Back to the line</RouterLink>
      <span class="space" />
      <Button as="a" :href="link" download icon="pi pi-download" label="MusicXML" variant="outlined" />
      <PictureButton :of="() => page" :title="title" />
      <Button icon="pi pi-print" label="Print" @click="print" />
    </header>
    <div class="choice">
      <Select
        v-model="reading"
        input-id="paper-reading"
        :options="readings"
        option-label="name"
        option-value="id"
        aria-label="read in"
      />
      <TickBox v-model="plain">without ornaments</TickBox>
      <TickBox v-model="fingers">fingers</TickBox>
    </div>
    <article ref="page">
      <h2>{{ title }}</h2>
      <p class="under">
        in <MusicText :symbol="score.data.value.key" /><template v-if="reading !== 'concert'">, {{ about }}</template> ·
        {{ score.data.value.tempo }} a minute<template v-if="score.data.value.swing">
          · swing: eighths long, short</template
        >
      </p>
      <StaffDrawing whole :score="score.data.value" :fingers="fingers" />
    </article>
  </div>
  <EmptyPlace v-else-if="score.error.value" title="This line cannot be shown" :text="score.error.value.message">
    <Button as="router-link" :to="{ name: 'lines' }" label="All lines" />
  </EmptyPlace>
</template>

<style scoped src="../paper/paper.css"></style>
