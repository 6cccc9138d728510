<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import Button from 'primevue/button'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { useChartMap, usePlayer } from '../../api/queries'
import PictureButton from '../../drawing/PictureButton.vue'
import MarkLegend from '../../music/MarkLegend.vue'
import MusicText from '../../music/MusicText.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import { useCommands } from '../../shell/useCommands'
import type { Position } from '../../api/client'
import { engrave } from '../../music/text'
import { plainLabels } from '../../neck/labels'
import { told } from '../../neck/region'
import { useAddress } from '../../shell/useAddress'
import SmallNeck from './SmallNeck.vue'
import { named, score, sum, took, truthIn } from './blank'
import { fretWidth, isWide, pageRule, sheetsOf, sizeOf } from './sheets'
import { useBlankNecks } from './useBlankNecks'
import { every, useDividing } from './useDividing'
import { useLayer } from './useLayer'

const address = useAddress()
const { id } = address
const player = usePlayer()
const key = ref<string>()
const dividing = useDividing(address, key)
const { own, way, on, onStrings, chosen, ways, says, strings } = dividing
const map = useChartMap(id, dividing.regions, ref(true))
const data = computed(() => map.data.value)
watch(data, (d) => (key.value = d?.chart.key), { immediate: true })
useTitle(computed(() => (data.value ? `Atlas of ${data.value.chart.title} · Undaris` : 'Atlas · Undaris')))

const labels = address.oneOf('labels', plainLabels)
const paper = address.oneOf('paper', ['A4', 'Letter'] as const)
const fill = address.oneOf('necks', ['filled', 'blank'])
const layers = useLayer(address, id)
const { of, marked } = layers
watch(of, (now) => now === 'names' && (labels.value = 'note'))

/** The positions once each, lowest first; octave repeats are the same shapes. */
const rows = computed(() =>
  (data.value?.positions ?? [])
    .map((position, i) => ({ position, i }))
    .filter(({ position: p }) => (own.value ? p.number === 0 : !p.octave && !p.nut)),
)
const one = address.text('chord', every)
const chords = computed(() =>
  (data.value?.chords ?? []).map((chord, i) => ({ chord, i })).filter(({ chord }) => !chord.none),
)
const choices = computed(() => [
  { id: every, name: 'every chord' },
  ...chords.value.map(({ chord }) => ({ id: chord.symbol, name: engrave(chord.symbol) })),
])
const columns = computed(() => {
  const alone = chords.value.filter(({ chord }) => chord.symbol === one.value)
  return alone.length ? alone : chords.value
})
const frets = computed(() => Math.max(5, ...rows.value.map(({ position: p }) => p.high - p.low + 1)))
const wide = computed(() => isWide(frets.value))
const notesOf = (row: { i: number }, n: number, i: number) =>
  wide.value || marked.value ? [...truth(i, n).values()] : data.value!.byPosition[row.i]!.runs[i]!.notes
const sheets = computed(() => sheetsOf(columns.value, frets.value))
const size = computed(() => sizeOf(paper.value))
const cell = (chords: number) => fretWidth(paper.value, chords, rows.value.length, frets.value)
const print = () => window.print()
const pages = useTemplateRef('pages')

/* Blank necks can be filled on the screen too, and checked. */
const necks = useBlankNecks(
  computed(() =>
    [
      player.data.value?.id,
      id.value,
      chosen.value,
      on.value,
      own.value && told(own.value),
      ...(of.value === 'tones' ? [] : [of.value]),
    ].join(' '),
  ),
)
const { checked, time } = necks
const neckOf = (chord: string, p: Position) => `${chord} ${told(p)}`
const truths = computed(() =>
  chords.value.map(({ i }) => rows.value.map((r) => truthIn((marked.value ?? data.value!.neck)[i] ?? [], r.position))),
)
const truth = (i: number, row: number) => truths.value[chords.value.findIndex((c) => c.i === i)]![row]!
const result = computed(() =>
  sum(
    columns.value.flatMap(({ chord, i }) =>
      rows.value.map((r, n) => score(truth(i, n), necks.marksOf(neckOf(chord.symbol, r.position)))),
    ),
  ),
)
/* One fingering serves several chords: those that are shared are numbered, and pointing at one shows the others. */
const shared = computed(() => {
  const all = rows.value.flatMap((r) => columns.value.map(({ i }) => data.value!.byPosition[r.i]!.alike[i]!))
  return [...new Set(all.filter((k, n) => all.indexOf(k) !== n || all.lastIndexOf(k) !== n))]
})
const pointed = ref(-1)
const caption = (row: number, i: number) => {
  const p = data.value!.byPosition[row]!
  const n = shared.value.indexOf(p.alike[i]!)
  const parts = [p.shapes[i] && `${p.shapes[i]} shape`, n >= 0 && p.runs[i]!.notes.length && `fingering ${n + 1}`]
  return parts.filter(Boolean).join(' · ')
}
useCommands({
  labels: () => (labels.value = plainLabels[(plainLabels.indexOf(labels.value) + 1) % plainLabels.length]!),
})
</script>

<template>
  <div v-if="data && player.data.value" class="atlas">
    <header>
      <h1>Atlas</h1>
      <RouterLink :to="{ name: 'bench', params: { id } }">Back to the Bench</RouterLink>
      <span class="space" />
      <SelectButton v-model="labels" :options="[...plainLabels]" :allow-empty="false" aria-label="labels" />
      <SelectButton v-model="fill" :options="['filled', 'blank']" :allow-empty="false" aria-label="necks" />
      <SelectButton v-model="paper" :options="['A4', 'Letter']" :allow-empty="false" aria-label="paper" />
      <template v-if="fill === 'blank'">
        <Button label="Clear" variant="text" @click="necks.clear" />
        <Button :label="checked ? 'Go on filling' : 'Check'" variant="outlined" @click="necks.check" />
      </template>
      <PictureButton :of="() => pages" :title="`Atlas of ${data.chart.title}`" />
      <Button icon="pi pi-print" label="Print" @click="print" />
    </header>
    <div class="regions">
      <Select
        v-model="chosen"
        :options="ways"
        option-label="name"
        option-value="id"
        aria-label="way to divide the neck"
      />
      <Select
        v-if="!own"
        v-model="onStrings"
        :options="strings"
        option-label="name"
        option-value="id"
        aria-label="on which strings"
      />
      <Select v-model="one" :options="choices" option-label="name" option-value="id" aria-label="which chords" />
      <Select
        v-model="of"
        :options="layers.layers.value"
        option-label="name"
        option-value="id"
        aria-label="what is mapped"
      />
      <p>{{ says }}</p>
    </div>
    <p v-if="fill === 'blank'" class="score" role="status">
      <template v-if="checked"
        >{{ result.right }} right, {{ result.wrong }} wrong, {{ result.missing.length || 'none' }} missing<template
          v-if="result.missing.length"
          >: <MusicText :said="named(result.missing)" /></template
        >.<template v-if="time">
          It took {{ took(time.took)
          }}<template v-if="time.before !== undefined">; the time before {{ took(time.before) }}</template
          >.</template
        ></template
      ><template v-else
        >Click the places of {{ layers.name.value }} over each chord, or print the necks and fill them in by
        hand.</template
      >
    </p>
    <component :is="'style'">{{ pageRule(paper) }}</component>
    <div ref="pages">
      <section
        v-for="(sheet, s) in sheets"
        :key="s"
        class="page"
        :style="{
          '--w': size.width,
          '--h': size.height,
          '--columns': wide ? 1 : sheet.length,
          '--rows': wide ? sheet.length * rows.length : rows.length,
        }"
      >
        <div class="title">
          <h2>{{ data.chart.title }}</h2>
          <p>
            <MusicText :symbol="data.chart.key" /> · {{ layers.name.value }} in
            {{ way || own ? (rows.length === 1 ? 'one region' : `${rows.length} regions`) : `${rows.length} positions`
            }}<template v-if="on && !own">, strings {{ on }}</template>
            <template v-if="sheets.length > 1"> · sheet {{ s + 1 }} of {{ sheets.length }}</template>
          </p>
          <MarkLegend />
        </div>
        <div class="grid" :class="{ wide }">
          <span v-if="!wide" />
          <template v-if="!wide">
            <h3 v-for="{ chord, i } in sheet" :key="i"><MusicText :symbol="chord.symbol" /></h3>
          </template>
          <template v-for="(row, n) in rows" :key="row.i">
            <template v-for="({ chord, i }, c) in sheet" :key="i">
              <p v-if="wide || c === 0" class="where">
                <b v-if="wide"><MusicText :symbol="chord.symbol" /></b>
                <b>{{ row.position.low }}–{{ row.position.high }}</b>
                <span v-if="row.position.strings?.length && !on">on {{ row.position.strings.join(', ') }}</span>
              </p>
              <div
                class="cell"
                :class="{ alike: pointed === data.byPosition[row.i]!.alike[i] }"
                @mouseenter="pointed = data.byPosition[row.i]!.alike[i]!"
                @mouseleave="pointed = -1"
              >
                <p v-if="fill === 'filled'" class="caption">{{ wide || marked ? '' : caption(row.i, i) }}</p>
                <SmallNeck
                  :instrument="data.instrument"
                  :position="row.position"
                  :notes="notesOf(row, n, i)"
                  :labels="labels"
                  :own="marked && new Set(data.neck[i]!.map((t) => t.degree))"
                  :blank="fill === 'blank'"
                  :truth="truth(i, n)"
                  :filled="necks.marksOf(neckOf(chord.symbol, row.position))"
                  :checked="checked"
                  :cell="cell(sheet.length)"
                  :name="`${chord.symbol}, frets ${row.position.low} to ${row.position.high}`"
                  @update:filled="(marks) => necks.mark(neckOf(chord.symbol, row.position), [...marks])"
                />
              </div>
            </template>
          </template>
        </div>
      </section>
    </div>
  </div>
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
}

.title {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 1rem;
  margin-bottom: 0.4rem;
}

.title p {
  color: var(--soft);
  flex: 1;
  white-space: nowrap;
}

h2 {
  font-size: var(--text-xl);
  overflow-wrap: anywhere;
}

.grid {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 4.6rem repeat(var(--columns), minmax(0, 1fr));
  grid-template-rows: auto repeat(var(--rows), minmax(12.5rem, 1fr));
  gap: 0.2rem 0.6rem;
}

.grid.wide {
  grid-template-rows: repeat(var(--rows), minmax(12.5rem, 1fr));
}

h3 {
  text-align: center;
  align-self: end;
  font-size: var(--text-l);
}

.where {
  display: grid;
  align-content: center;
}

.where b {
  font-size: var(--text-m);
}

.where > span {
  color: var(--soft);
  font-size: 0.875rem;
}

.cell {
  min-height: 0;
  min-width: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  border-radius: var(--round);
}

.alike {
  background: var(--lit);
}

.caption {
  color: var(--soft);
  font-size: 0.875rem;
  line-height: 1.1;
  text-align: center;
}

.regions {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 0.75rem;
  margin-bottom: 0.75rem;
}

.regions p {
  color: var(--soft);
}

@media (max-width: 51.25em) {
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
  .regions,
  .score {
    display: none;
  }

  .page {
    width: calc(var(--w) * 1mm);
    height: calc(var(--h) * 1mm - 1px);
    overflow: hidden;
    margin: 0;
    padding: 9mm 10mm;
    border: 0;
    background: none;
    break-after: page;
    break-inside: avoid;
  }

  .grid,
  .grid.wide {
    grid-auto-rows: minmax(0, 1fr);
    grid-template-rows: none;
  }

  .grid:not(.wide) {
    grid-template-rows: auto;
  }

  .page:last-of-type {
    break-after: auto;
  }
}
</style>
