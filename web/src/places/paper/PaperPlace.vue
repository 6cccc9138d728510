<script setup lang="ts">
/* A run, a crossing or the thread on paper. */
import { spanOf, readFrets } from '../../neck/region'
import { engrave } from '../../music/text'
import { useQuery } from '@tanstack/vue-query'
import { useTitle } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import Select from 'primevue/select'
import { answer, api } from '../../api/client'
import { useChartMap } from '../../api/queries'
import PictureButton from '../../drawing/PictureButton.vue'
import MusicText from '../../music/MusicText.vue'
import FormSheet from '../../sheet/FormSheet.vue'
import { useBand } from '../../band/useBand'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import TickBox from '../../shell/TickBox.vue'
import { barsOf } from '../../music/metre'
import { useReading } from '../../shell/useReading'
import { useAddress } from '../../shell/useAddress'

const address = useAddress()
const { id } = address
const map = useChartMap(id, ref(undefined), ref(true))
const kinds = ['thread', 'run', 'crossing', 'chords'] as const
const of = address.oneOf('of', kinds)
const windows = computed(() =>
  (map.data.value?.positions ?? []).map((p) => ({ name: `${p.low}–${p.high}`, value: spanOf(p) })),
)
const frets = computed({
  get: () => address.read('frets') || (windows.value[0]?.value ?? ''),
  set: (frets) => void address.write({ frets }),
})
/* One entry for each chord of the form, or each change. */
const steps = computed(() => {
  const m = map.data.value
  if (!m) return []
  const all = m.bars.flatMap((b, bar) => b.changes.map((c) => ({ bar, chord: m.chords[c.chord]!.symbol })))
  const seen = new Set<string>()
  return all.flatMap((s, i) => {
    const next = all[(i + 1) % all.length]!
    const name = of.value === 'run' ? s.chord : `${s.chord} to ${next.chord}`
    if (seen.has(name) || (of.value === 'crossing' && s.chord === next.chord)) return []
    seen.add(name)
    return [{ name: engrave(name), value: i }]
  })
})
const step = computed({
  get: () => {
    const asked = Number(address.read('step'))
    return steps.value.some((s) => s.value === asked) ? asked : (steps.value[0]?.value ?? 0)
  },
  set: (v) => void address.write({ step: String(v) }),
})
/* In which pitch it is read. */
const { readings, reading, about } = useReading(() => map.data.value?.chart.reading)
const leaf = useQuery({
  queryKey: ['leaf', id, reading],
  queryFn: () =>
    answer(api.GET('/api/charts/{id}/leaf', { params: { path: { id: id.value }, query: { reading: reading.value } } })),
  enabled: computed(() => of.value === 'chords'),
  placeholderData: (before) => before,
})
const asked = computed(() => {
  const kind = of.value === 'chords' ? ('thread' as const) : of.value
  return {
    of: kind,
    ...(readFrets(frets.value) ?? { low: 0, high: 4 }),
    step: kind === 'thread' ? 0 : step.value,
    reading: reading.value,
  }
})
const score = useQuery({
  queryKey: ['score', id, asked],
  queryFn: () => answer(api.GET('/api/charts/{id}/score', { params: { path: { id: id.value }, query: asked.value } })),
  enabled: computed(() => !!frets.value),
  placeholderData: (before) => before,
})
const fingers = address.yes('fingers')
const link = computed(
  () =>
    `/api/charts/${id.value}/files/musicxml?${new URLSearchParams(Object.entries(asked.value).map(([k, v]) => [k, String(v)]))}`,
)
/* The chords as others open them. */
const leaves = computed(() => [
  { label: 'Text', href: `/api/charts/${id.value}/text` },
  { label: 'ChordPro', href: `/api/charts/${id.value}/files/chordpro` },
  { label: 'MusicXML', href: `/api/charts/${id.value}/files/musicxml?of=chords&low=0&high=4&reading=${reading.value}` },
])
const title = computed(() => map.data.value?.chart.title ?? '')
useTitle(computed(() => `${title.value} on paper · Undaris`))
const print = () => window.print()
const page = useTemplateRef('page')

/* What is written can be heard, over its own bars. */
const band = useBand()
function hear() {
  const s = score.data.value
  if (!s) return
  if (band.playing) return band.stop()
  const [path, query] = [{ id: id.value }, { ...asked.value, reading: undefined }] // it sounds as it sounds
  void band.hear({
    title: s.title,
    beats: s.beats,
    lengths: barsOf(s).lengths,
    cues: [],
    load: (how) =>
      answer(
        api.GET('/api/charts/{id}/files/{format}', {
          params: { path: { ...path, format: 'score-midi' }, query: { ...query, ...how } },
          parseAs: 'arrayBuffer',
        }),
      ),
  })
}
const clock = () => (band.audition?.title === score.data.value?.title ? band.ticks : undefined)
</script>

<template>
  <div v-if="map.data.value" class="paper">
    <header>
      <h1>On paper</h1>
      <RouterLink :to="{ name: 'bench', params: { id }, query: { frets: address.read('frets') || undefined } }"
        >Back to the Bench</RouterLink
      >
      <span class="space" />
      <Button
        v-if="of !== 'chords'"
        :icon="band.playing ? 'pi pi-stop' : 'pi pi-volume-up'"
        label="Hear"
        variant="outlined"
        @click="hear"
      />
      <Button
        v-if="of !== 'chords'"
        as="a"
        :href="link"
        download
        icon="pi pi-download"
        label="MusicXML"
        variant="outlined"
      />
      <template v-if="of === 'chords'">
        <Button
          v-for="f in leaves"
          :key="f.label"
          as="a"
          :href="f.href"
          download
          icon="pi pi-download"
          :label="f.label"
          variant="outlined"
        />
      </template>
      <PictureButton :of="() => page" :title="title" />
      <Button icon="pi pi-print" label="Print" @click="print" />
    </header>
    <div class="choice">
      <SelectButton v-model="of" :options="[...kinds]" :allow-empty="false" aria-label="what is written" />
      <Select
        v-model="reading"
        input-id="paper-reading"
        :options="readings"
        option-label="name"
        option-value="id"
        aria-label="read in"
      />
      <SelectButton
        v-if="of !== 'chords'"
        v-model="frets"
        :options="windows"
        option-label="name"
        option-value="value"
        :allow-empty="false"
        aria-label="frets"
      />
      <Select
        v-if="of === 'run' || of === 'crossing'"
        v-model="step"
        input-id="paper-step"
        :options="steps"
        option-label="name"
        option-value="value"
        :aria-label="of === 'run' ? 'chord' : 'change'"
      />
      <TickBox v-if="of !== 'chords'" v-model="fingers">fingers</TickBox>
    </div>
    <article v-if="of === 'chords' && leaf.data.value" ref="page" class="leaf">
      <h2>{{ leaf.data.value.title }}</h2>
      <p class="under">
        in <MusicText :symbol="leaf.data.value.key" /><template v-if="reading !== 'concert'"
          >, {{ about }}; it sounds in <MusicText :symbol="leaf.data.value.sounds"
        /></template>
        · {{ leaf.data.value.feel }} · {{ leaf.data.value.tempo }} a minute
      </p>
      <p v-if="leaf.data.value.remarks" class="remarks">{{ leaf.data.value.remarks }}</p>
      <FormSheet
        :bars="leaf.data.value.sheet.bars"
        :chords="leaf.data.value.sheet.chords"
        :pickup="leaf.data.value.sheet.pickup"
      />
    </article>
    <article v-else-if="score.data.value && !score.error.value" ref="page">
      <h2>{{ title }}</h2>
      <p class="under">
        <template v-if="reading !== 'concert'">{{ about }} · </template>
        {{ of === 'thread' ? 'the thread' : steps.find((s) => s.value === step)?.name }} · frets
        {{ frets.replace('-', ' to ') }} · {{ score.data.value.tempo }} a minute<template v-if="score.data.value.swing">
          · swing: eighths long, short</template
        >
      </p>
      <StaffDrawing whole :score="score.data.value" :fingers="fingers" :clock="clock" />
    </article>
    <p v-else-if="score.error.value" class="trouble" role="alert">{{ score.error.value.message }}</p>
  </div>
  <EmptyPlace v-else-if="map.error.value" title="This chart cannot be shown" :text="map.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
  </EmptyPlace>
</template>

<style scoped src="./paper.css"></style>
