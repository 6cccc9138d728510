<script setup lang="ts">
/* One set: its charts in order, each so many times, played through. */
import { useQuery } from '@tanstack/vue-query'
import { useTitle } from '@vueuse/core'
import { computed, onBeforeUnmount } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import { answer, api, type PlayedSet, type SetBody } from '../../api/client'
import { useCharts } from '../../api/queries'
import { setBody, useSet, useSetChanges } from '../../api/sets'
import type { Keeps } from '../../document/useAutosave'
import { useOpening } from '../../document/useOpening'
import { useRecord } from '../../document/useRecord'
import FormSheet from '../../sheet/FormSheet.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import HistoryButtons from '../../shell/HistoryButtons.vue'
import PressButton from '../../shell/PressButton.vue'
import SaveWords from '../../shell/SaveWords.vue'
import TitleField from '../../shell/TitleField.vue'
import { useAddress } from '../../shell/useAddress'
import { throughHistory, useCommands } from '../../shell/useCommands'
import MusicText from '../../music/MusicText.vue'
import { metreOf, metreOfSheet } from '../../music/metre'
import { useThrough, type Piece } from './useThrough'

const { id } = useAddress()
const saved = useSet(id)
const charts = useCharts()
const changes = useSetChanges()
const record = useRecord<SetBody>({ keeps: (): Keeps<SetBody> | undefined => opening.keeper(), part: setBody })
const opening = useOpening<SetBody, PlayedSet>({
  stored: saved,
  keeper: (s) => changes.keeper(s.id, s.title),
  path: (id) => `/api/sets/${id}`,
  part: setBody,
  open: (s) => record.open(setBody(s)),
  bring: record.bring,
  body: record.body,
  state: record.state,
  join: record.join,
  resume: record.settled,
})
useCommands(throughHistory(record))
onBeforeUnmount(() => void changes.fresh())
useTitle(computed(() => `${record.body.value?.title ?? 'Set'} · Undaris`))

const items = computed(() => record.body.value?.items ?? [])
const rows = computed(() =>
  items.value.map((item) => ({ item, chart: charts.data.value?.find((c) => c.id === item.chart) })),
)
/* A chart that was deleted is passed over. */
const pieces = computed<Piece[]>(() =>
  rows.value.flatMap(({ item, chart }) => (chart?.bars ? [{ chart, choruses: item.choruses }] : [])),
)
const through = useThrough(pieces)
const minutes = computed(() =>
  Math.round(
    pieces.value.reduce(
      (sum, p) => sum + (metreOf(p.chart).length * p.choruses + 2 * p.chart.beats) / p.chart.tempo,
      0,
    ),
  ),
)
const put = (name: string, next: SetBody['items']) => record.change(name, { items: next })
const add = (chart: number) => put('another chart', [...items.value, { chart, choruses: 3 }])
const drop = (i: number) => put('a chart gone', items.value.filter((_, j) => j !== i)) // prettier-ignore
const often = (i: number, choruses: number) =>
  put('how often', items.value.map((item, j) => (j === i ? { ...item, choruses } : item))) // prettier-ignore
function move(i: number, by: number) {
  const next = [...items.value]
  const [item] = next.splice(i, 1)
  if (item) next.splice(i + by, 0, item)
  put('the order', next)
}
const pieceAt = (i: number) => rows.value.slice(0, i).filter((r) => r.chart?.bars).length

const leaf = useQuery({
  queryKey: ['leaf', computed(() => through.now.value?.chart.id)],
  queryFn: () =>
    answer(api.GET('/api/charts/{id}/leaf', { params: { path: { id: through.now.value!.chart.id }, query: {} } })),
  enabled: computed(() => !!through.now.value),
})
</script>

<template>
  <div v-if="record.body.value" class="set">
    <header>
      <TitleField
        :title="record.body.value.title"
        label="title of the set"
        :longest="120"
        @change="(title) => record.change('title', { title })"
      />
      <p class="meta">
        {{ pieces.length }} {{ pieces.length === 1 ? 'chart' : 'charts' }} · about {{ minutes }} min ·
        <SaveWords :state="record.state.value" :why="record.why.value" />
      </p>
      <span class="space" />
      <HistoryButtons />
      <Button as="router-link" :to="{ name: 'sets' }" label="All sets" variant="text" />
      <Button
        v-if="rows.some((r) => r.chart)"
        as="router-link"
        :to="{
          name: 'practice',
          query: { do: 'today', for: [...new Set(rows.flatMap((r) => r.chart?.id ?? []))].join() },
        }"
        label="Prepare it"
        title="plans until its day, made of the changes of its charts"
        variant="outlined"
      />
      <Button
        :label="through.mine.value ? 'Stop' : 'Play it through'"
        :icon="through.mine.value ? 'pi pi-stop' : 'pi pi-play'"
        :disabled="!pieces.length"
        @click="through.mine.value ? through.stop() : through.play(0)"
      />
    </header>
    <p v-if="record.trouble.value" class="trouble" role="alert">{{ record.trouble.value }}</p>
    <ol>
      <li
        v-for="({ item, chart }, i) in rows"
        :key="i"
        :class="{ on: through.mine.value && pieceAt(i) === through.at.value && chart }"
      >
        <b>{{ i + 1 }}</b>
        <RouterLink v-if="chart" :to="{ name: 'bench', params: { id: chart.id } }">{{ chart.title }}</RouterLink>
        <span v-else class="gone">a chart that was deleted</span>
        <span v-if="chart" class="about"
          ><MusicText :symbol="chart.key" /> · {{ chart.feelName }} · {{ chart.tempo }}</span
        >
        <label class="times">
          <InputNumber
            :model-value="item.choruses"
            :min="1"
            :max="32"
            size="small"
            :aria-label="`times of ${chart?.title ?? 'it'}`"
            @update:model-value="(n) => often(i, n ?? 1)"
          />
          times
        </label>
        <span class="does">
          <PressButton v-if="chart" :aria-label="`play from ${chart.title}`" @click="through.play(pieceAt(i))">
            <i class="pi pi-play" />
          </PressButton>
          <PressButton :disabled="i === 0" aria-label="earlier" @click="move(i, -1)"
            ><i class="pi pi-arrow-up"
          /></PressButton>
          <PressButton :disabled="i === rows.length - 1" aria-label="later" @click="move(i, 1)">
            <i class="pi pi-arrow-down" />
          </PressButton>
          <PressButton aria-label="take it out" @click="drop(i)"><i class="pi pi-times" /></PressButton>
        </span>
      </li>
    </ol>
    <p v-if="!rows.length" class="hint">Nothing is in it yet: choose the first chart.</p>
    <Select
      :key="items.length"
      input-id="set-add"
      :model-value="null"
      :options="charts.data.value ?? []"
      option-label="title"
      option-value="id"
      filter
      reset-filter-on-hide
      placeholder="add a chart"
      aria-label="add a chart"
      @update:model-value="add"
    />
    <section v-if="through.mine.value && leaf.data.value" aria-label="what plays">
      <h2>
        {{ leaf.data.value.title }}
        <small v-if="through.heard.value"
          >time {{ through.heard.value.time }} of {{ through.now.value?.choruses }}</small
        >
      </h2>
      <p v-if="leaf.data.value.remarks" class="hint">{{ leaf.data.value.remarks }}</p>
      <FormSheet
        :bars="leaf.data.value.sheet.bars"
        :chords="leaf.data.value.sheet.chords"
        :pickup="leaf.data.value.sheet.pickup"
        :at="
          through.heard.value && {
            bar: metreOfSheet(leaf.data.value.sheet.bars).at(through.heard.value.beat).bar,
            change: 0,
          }
        "
        :sound="{ beat: through.heard.value?.beat }"
      />
    </section>
  </div>
  <EmptyPlace v-else-if="saved.error.value" title="This set cannot be shown" :text="saved.error.value.message">
    <Button as="router-link" :to="{ name: 'sets' }" label="All sets" />
  </EmptyPlace>
</template>

<style scoped>
.set {
  padding: 1rem 1.25rem 2rem;
  display: grid;
  gap: 0.75rem;
  justify-items: start;
  align-content: start;
}

section :deep(.row) {
  min-height: 4.2rem;
}

header,
ol,
section {
  width: 100%;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.8rem;
}

.meta,
.about,
.hint,
small {
  color: var(--soft);
}

.space {
  flex: 1;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

li {
  display: grid;
  grid-template-columns: 2rem minmax(8rem, 2fr) minmax(6rem, 1.5fr) 9rem auto;
  align-items: center;
  gap: 0.8rem;
  min-height: 3.2rem;
  border-top: 1px solid var(--rule);
}

li:last-child {
  border-bottom: 1px solid var(--rule);
}

li.on {
  background: var(--lit);
}

li a {
  font-weight: 700;
  font-size: var(--text-l);
}

.gone {
  color: var(--danger);
}

.times {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}

.times :deep(input) {
  width: 3.2rem;
}

.does button {
  width: var(--target);
  height: var(--target);
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
}

.does button:disabled {
  opacity: 0.3;
  cursor: default;
}

small {
  font: 400 var(--text-m) var(--font-text);
}

@media (max-width: 43.75em) {
  li {
    grid-template-columns: 2rem minmax(0, 1fr);
  }
}
</style>
