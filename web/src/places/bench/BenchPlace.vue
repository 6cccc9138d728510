<script setup lang="ts">
import { onKeyStroke, useTitle } from '@vueuse/core'
import { computed } from 'vue'
import Button from 'primevue/button'
import type { Note } from '../../api/client'
import { useChartChanges } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import { spoken } from '../../music/text'
import MarkLegend from '../../music/MarkLegend.vue'
import NeckDrawing, { type Spot } from '../../neck/NeckDrawing.vue'
import FormSheet from '../../sheet/FormSheet.vue'
import { isTyping } from '../../shell/keys'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import NowNext from './NowNext.vue'
import RunCard from './RunCard.vue'
import SpellingCard from './SpellingCard.vue'
import WindowChooser from './WindowChooser.vue'
import { labelKinds, useBench } from './useBench'

const bench = useBench()
const { data, steps, at, step, chord, coming, positions, position, window, own, run, labels, map, charts } = bench
const changes = useChartChanges()
useTitle(computed(() => (data.value ? `${data.value.chart.title} · Undaris` : 'Undaris')))

const labelOf = (n: Note) =>
  ({ degree: n.degree, note: n.note, finger: n.finger ? String(n.finger) : 'o', fret: String(n.fret) })[labels.value]
const spots = computed<Spot[]>(() =>
  (run.value?.notes ?? []).map((n) => ({
    ...n,
    label: labelOf(n),
    title: `${spoken(n.degree)} of ${spoken(chord.value?.symbol ?? '')}: ${spoken(n.note)}, string ${n.string} fret ${n.fret}`,
  })),
)
const ghosts = computed(() => {
  const taken = new Set(spots.value.map((s) => `${s.string}:${s.fret}`))
  return (data.value?.neck[step.value?.chord ?? 0] ?? []).filter((n) => !taken.has(`${n.string}:${n.fret}`))
})
const describe = computed(
  () =>
    `neck, frets ${window.value?.low} to ${window.value?.high}, ${spoken(chord.value?.symbol ?? '')}: ` +
    spots.value.map((s) => s.title).join('; '),
)

/** Chooses where a pitch is played in this window, and remembers it with the chart. */
function pick(n: Note) {
  const chart = data.value?.chart
  if (!chart || !window.value) return
  const { low, high } = window.value
  const other = run.value?.notes.find((m) => m.midi === n.midi)
  const key = (m: Note) => `${low}-${high} ${m.string}:${m.fret}`
  const picks = (chart.plan.picks ?? []).filter((p) => !other || p !== key(other))
  changes.plan.mutate({ id: chart.id, plan: { ...chart.plan, picks: [...picks, key(n)] } })
}

const keys: Record<string, () => void> = {
  ArrowRight: () => bench.go(at.value + 1),
  ArrowLeft: () => bench.go(at.value - 1),
  PageDown: () => bench.go(at.value + 1),
  PageUp: () => bench.go(at.value - 1),
  Home: () => bench.go(0),
  End: () => bench.go(steps.value.length - 1),
  ArrowUp: () => bench.shift(1),
  ArrowDown: () => bench.shift(-1),
  n: () => bench.setLabels(labelKinds[(labelKinds.indexOf(labels.value) + 1) % labelKinds.length]!),
  w: () => (own.value ? bench.leaveOwn() : window.value && bench.setOwn(window.value.low, window.value.high)),
}
for (const n of [1, 2, 3, 4, 5]) keys[n] = () => bench.setNumber(n)
onKeyStroke(
  (e) => !e.ctrlKey && !e.metaKey && !e.altKey && !isTyping(e) && (e.key in keys || e.key.toLowerCase() in keys),
  (e) => {
    e.preventDefault()
    ;(keys[e.key] ?? keys[e.key.toLowerCase()])?.()
  },
)
</script>

<template>
  <main v-if="data && step && chord && run && window" class="bench">
    <header>
      <h1>{{ data.chart.title }}</h1>
      <p class="meta">
        <MusicText :text="data.chart.key" /> · {{ data.chart.bars }} bars · {{ data.chart.feelName }}
        {{ data.chart.tempo }}
      </p>
      <nav class="links">
        <RouterLink :to="{ name: 'atlas', params: { id: data.chart.id } }">Atlas</RouterLink>
        <RouterLink :to="{ name: 'edit', params: { id: data.chart.id } }">Edit</RouterLink>
      </nav>
    </header>
    <FormSheet
      class="form"
      :bars="data.bars"
      :chords="data.chords"
      :beats="data.chart.beats"
      :at="step"
      :next="coming[0]"
      @go="bench.goTo"
    />
    <NowNext class="ahead" :map="data" :step="step" :coming="coming" />
    <div class="tools">
      <div class="labels" role="group" aria-label="labels">
        <button
          v-for="k in labelKinds"
          :key="k"
          type="button"
          :class="{ on: k === labels }"
          :aria-pressed="k === labels"
          @click="bench.setLabels(k)"
        >
          {{ k }}
        </button>
      </div>
      <WindowChooser
        :positions="positions"
        :selected="position"
        :own="own"
        :last="data.instrument.last"
        @number="bench.setNumber"
        @own="bench.setOwn"
        @leave="bench.leaveOwn"
      />
      <MarkLegend class="legend" />
    </div>
    <NeckDrawing
      class="neck"
      :instrument="data.instrument"
      :window="window"
      :spots="spots"
      :ghosts="ghosts"
      :describe="describe"
      @window="bench.setOwn"
    />
    <div class="cards">
      <RunCard :chord="chord" :run="run" :window="window" @pick="pick" />
      <SpellingCard :chord="chord" />
    </div>
  </main>
  <EmptyPlace v-else-if="map.error.value" title="This chart cannot be shown" :text="map.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
    <Button v-if="own" label="Back to positions" variant="outlined" @click="bench.leaveOwn()" />
  </EmptyPlace>
  <EmptyPlace
    v-else-if="charts.data.value?.length === 0"
    title="Nothing on the bench yet"
    text="Make a chart first: choose a twelve-bar and a key, or type the chords of a song."
  >
    <Button as="router-link" :to="{ name: 'new' }" label="Make a chart" />
  </EmptyPlace>
  <EmptyPlace v-else-if="charts.error.value" title="No answer" :text="charts.error.value.message" />
</template>

<style scoped>
.bench {
  display: grid;
  grid-template:
    'head head' auto
    'form ahead' minmax(10.5rem, 13.5rem)
    'tools tools' auto
    'neck neck' auto
    'cards cards' auto / minmax(0, 1fr) 22rem;
  gap: 0.6rem 1.5rem;
  padding: 0.6rem 1.25rem 1.25rem;
}

header {
  grid-area: head;
  display: flex;
  align-items: baseline;
  gap: 1rem;
  min-width: 0;
}

h1 {
  font-size: var(--text-xl);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.meta {
  color: var(--soft);
  white-space: nowrap;
}

.links {
  margin-left: auto;
  display: flex;
}

.links a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 0.75rem;
  text-underline-offset: 4px;
}

.form {
  grid-area: form;
}

.ahead {
  grid-area: ahead;
}

.tools {
  grid-area: tools;
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
}

.legend {
  margin-left: auto;
}

.labels {
  display: flex;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  overflow: hidden;
  background: var(--raised);
}

.labels button {
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 0;
  border-left: 1px solid var(--rule);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  cursor: pointer;
}

.labels button:first-child {
  border-left: 0;
}

.labels button:focus-visible {
  outline-offset: -3px;
}

.labels .on {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}

.neck {
  grid-area: neck;
}

.cards {
  grid-area: cards;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 22rem;
  gap: 0.6rem 1.5rem;
}

@media (max-width: 820px) {
  .bench,
  .cards {
    grid-template-columns: minmax(0, 1fr);
  }

  .bench {
    grid-template-areas: 'head' 'ahead' 'form' 'tools' 'neck' 'cards';
    grid-template-rows: auto;
    padding-inline: 0.75rem;
  }

  header {
    flex-wrap: wrap;
    gap: 0 1rem;
  }

  .legend {
    margin-left: 0;
  }
}
</style>
