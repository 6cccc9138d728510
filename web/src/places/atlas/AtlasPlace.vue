<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import { useChartMap } from '../../api/queries'
import MarkLegend from '../../music/MarkLegend.vue'
import MusicText from '../../music/MusicText.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import { useCommands } from '../../shell/useCommands'
import { plainLabels } from '../bench/useBench'
import SmallNeck from './SmallNeck.vue'
import { useAddress } from '../../shell/useAddress'

const address = useAddress()
const { id } = address
const map = useChartMap(id, ref(undefined), ref(true))
const data = computed(() => map.data.value)
useTitle(computed(() => (data.value ? `Atlas of ${data.value.chart.title} · Undaris` : 'Atlas · Undaris')))

const labels = address.oneOf('labels', plainLabels)
const paper = address.oneOf('paper', ['A4', 'Letter'])
const fill = address.oneOf('necks', ['filled', 'blank'])

/** The five positions once each, lowest first; octave repeats are the same shapes. */
const rows = computed(() =>
  (data.value?.positions ?? [])
    .map((position, i) => ({ position, i }))
    .filter(({ position: p }) => !p.octave && !p.nut),
)
const columns = computed(() =>
  (data.value?.chords ?? []).map((chord, i) => ({ chord, i })).filter(({ chord }) => !chord.none),
)
/** As many chords as stay readable side by side; a longer chart takes more sheets. */
const perSheet = 8
const sheets = computed(() => {
  const n = Math.ceil(columns.value.length / perSheet)
  const each = Math.ceil(columns.value.length / Math.max(n, 1))
  return Array.from({ length: n }, (_, s) => columns.value.slice(s * each, (s + 1) * each))
})
const size = computed(() => (paper.value === 'A4' ? { width: 297, height: 210 } : { width: 279.4, height: 215.9 }))
/** A fret as wide as the columns of a sheet leave room for. */
const fretWidth = (chords: number) => {
  const column = (size.value.width - 38) / chords
  const row = (size.value.height - 45) / Math.max(rows.value.length, 1)
  return Math.min(78, Math.max(34, ((column / row) * 181 - 20) / 5))
}
const pageRule = computed(() => `@page { size: ${paper.value === 'A4' ? 'A4' : 'letter'} landscape; margin: 0 }`)
const print = () => window.print()

/* Blank necks can be filled on the screen too, and checked. */
const checked = ref(false)
const score = ref({ right: 0, wrong: 0, missing: 0 })
function check() {
  score.value = { right: 0, wrong: 0, missing: 0 }
  checked.value = !checked.value
}
const count = (right: number, wrong: number, missing: number) => {
  score.value = {
    right: score.value.right + right,
    wrong: score.value.wrong + wrong,
    missing: score.value.missing + missing,
  }
}
watch(fill, () => (checked.value = false))
useCommands({
  labels: () => (labels.value = plainLabels[(plainLabels.indexOf(labels.value) + 1) % plainLabels.length]!),
})
</script>

<template>
  <main v-if="data" class="atlas">
    <header>
      <h1>Atlas</h1>
      <RouterLink :to="{ name: 'bench', params: { id } }">Back to the Bench</RouterLink>
      <span class="space" />
      <SelectButton v-model="labels" :options="[...plainLabels]" :allow-empty="false" aria-label="labels" />
      <SelectButton v-model="fill" :options="['filled', 'blank']" :allow-empty="false" aria-label="necks" />
      <SelectButton v-model="paper" :options="['A4', 'Letter']" :allow-empty="false" aria-label="paper" />
      <Button v-if="fill === 'blank'" :label="checked ? 'Go on filling' : 'Check'" variant="outlined" @click="check" />
      <Button icon="pi pi-print" label="Print" @click="print" />
    </header>
    <p v-if="fill === 'blank'" class="score" role="status">
      <template v-if="checked">{{ score.right }} right, {{ score.wrong }} wrong, {{ score.missing }} missing.</template
      ><template v-else>Click where each chord’s tones lie, or print the necks and fill them in by hand.</template>
    </p>
    <component :is="'style'">{{ pageRule }}</component>
    <section
      v-for="(sheet, s) in sheets"
      :key="s"
      class="page"
      :style="{ '--w': size.width, '--h': size.height, '--columns': sheet.length, '--rows': rows.length }"
    >
      <div class="title">
        <h2>{{ data.chart.title }}</h2>
        <p>
          <MusicText :text="data.chart.key" /> · chord tones in {{ rows.length }} positions
          <template v-if="sheets.length > 1"> · sheet {{ s + 1 }} of {{ sheets.length }}</template>
        </p>
        <MarkLegend />
      </div>
      <div class="grid">
        <span />
        <h3 v-for="{ chord, i } in sheet" :key="i"><MusicText :text="chord.symbol" /></h3>
        <template v-for="row in rows" :key="row.i">
          <p class="where">
            <b>{{ row.position.low }}–{{ row.position.high }}</b>
            <span v-if="row.position.shape">{{ row.position.shape }} shape</span>
          </p>
          <div v-for="{ chord, i } in sheet" :key="i" class="cell">
            <SmallNeck
              :instrument="data.instrument"
              :position="row.position"
              :notes="data.byPosition[row.i]!.runs[i]!.notes"
              :labels="labels"
              :blank="fill === 'blank'"
              :truth="data.neck[i]"
              :checked="checked"
              :cell="fretWidth(sheet.length)"
              :name="`${chord.symbol}, frets ${row.position.low} to ${row.position.high}`"
              @score="count"
            />
          </div>
        </template>
      </div>
    </section>
  </main>
  <EmptyPlace v-else-if="map.error.value" title="This chart cannot be shown" :text="map.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
  </EmptyPlace>
</template>

<style scoped>
.atlas {
  padding: 0.75rem 1.25rem 2rem;
}

header {
  display: flex;
  align-items: center;
  gap: 0.6rem 1rem;
  flex-wrap: wrap;
  margin-bottom: 0.75rem;
}

h1 {
  font-size: 2rem;
}

header a {
  min-height: var(--target);
  display: inline-flex;
  align-items: center;
}

.score {
  color: var(--soft);
  margin-bottom: 0.5rem;
}

.space {
  flex: 1;
}

.page {
  background: var(--raised);
  border: 1px solid var(--rule);
  padding: 1.25rem 1.5rem;
  margin-bottom: 1.5rem;
  display: flex;
  flex-direction: column;
  aspect-ratio: calc(var(--w) / var(--h));
  overflow: hidden;
}

.title {
  display: flex;
  align-items: baseline;
  gap: 1rem;
  margin-bottom: 0.4rem;
}

.title p {
  color: var(--soft);
  flex: 1;
  white-space: nowrap;
}

h2 {
  font-size: var(--text-xl);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.grid {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 4.6rem repeat(var(--columns), minmax(0, 1fr));
  grid-template-rows: auto repeat(var(--rows), minmax(0, 1fr));
  gap: 0.2rem 0.6rem;
}

h3 {
  text-align: center;
  font-size: var(--text-l);
}

.where {
  display: grid;
  align-content: center;
}

.where b {
  font-size: var(--text-m);
}

.where span {
  color: var(--soft);
  font-size: 0.875rem;
}

.cell {
  min-height: 0;
  min-width: 0;
}

@media (max-width: 820px) {
  .atlas {
    overflow-x: auto;
  }

  .page {
    min-width: 56rem;
  }
}

@media print {
  .atlas {
    padding: 0;
  }

  header,
  .score {
    display: none;
  }

  .page {
    width: calc(var(--w) * 1mm);
    height: calc(var(--h) * 1mm - 1px);
    aspect-ratio: auto;
    margin: 0;
    padding: 9mm 10mm;
    border: 0;
    background: none;
    break-after: page;
    break-inside: avoid;
  }

  .page:last-of-type {
    break-after: auto;
  }
}
</style>
