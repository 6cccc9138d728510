<script setup lang="ts">
/* What was practised, as maps: where it goes well, and where not. Any spot says what is behind it. */
import { useTitle } from '@vueuse/core'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Select from 'primevue/select'
import type { LogMaps } from '../../../api/client'
import { useLogLines, useLogMaps } from '../../../api/log'
import { useCharts } from '../../../api/queries'
import MusicText from '../../../music/MusicText.vue'
import { engrave } from '../../../music/text'
import PressButton from '../../../shell/PressButton.vue'
import EmptyPlace from '../../../shell/EmptyPlace.vue'
import SegmentedChoice from '../../../shell/SegmentedChoice.vue'
import { useAddress } from '../../../shell/useAddress'
import KeyWheel from './KeyWheel.vue'
import LadderCurves from './LadderCurves.vue'
import LogLines from './LogLines.vue'
import MinuteBars from './MinuteBars.vue'
import MapGrid from './MapGrid.vue'
import TakenList from './TakenList.vue'
import SwingDots from './SwingDots.vue'
import TimingBars from './TimingBars.vue'
import WeekBars from './WeekBars.vue'

useTitle('Log · Undaris')
const address = useAddress()
const charts = useCharts()
const chart = address.text('of', 'all')
const weeks = address.text('weeks', '0')
const tuning = address.text('on', 'all')
const filter = computed(() => ({
  chart: Number(chart.value) || undefined,
  weeks: Number(weeks.value) || undefined,
  tuning: tuning.value === 'all' ? undefined : tuning.value,
}))
const maps = useLogMaps(filter)
const spans = [
  { id: '0', name: 'all' },
  { id: '12', name: '12 weeks' },
  { id: '4', name: '4 weeks' },
  { id: '1', name: 'a week' },
]
const degrees = ['root', 'third', 'fifth', 'seventh']
const degree = ref('all')
const strings = computed(() => Math.max(6, ...(maps.data.value?.spots.map((s) => s.string) ?? [])))

type Counted = {
  trials: number
  right: number
  success: number
  last: string
  behind: LogMaps['cells'][number]['behind']
}
/* What is looked at: why it is as it is, and how to practise it. */
const look = ref<{ name: string; of: Counted; query: Record<string, string>; chart?: number }>()
const lines = useLogLines(computed(() => look.value?.of.behind.map((b) => b.id) ?? []))
const behind = (id: number) => look.value?.of.behind.find((b) => b.id === id)
const barOf = (id: number) => behind(id)?.bar
const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })

function spot(string: number, position: number): Counted | undefined {
  const all = maps.data.value?.spots.filter(
    (s) => s.string === string && s.position === position && (degree.value === 'all' || s.degree === degree.value),
  )
  if (!all?.length) return undefined
  const trials = all.reduce((n, s) => n + s.trials, 0)
  return {
    trials,
    right: all.reduce((n, s) => n + s.right, 0),
    success: all.reduce((n, s) => n + s.success * s.trials, 0) / trials,
    last: all
      .map((s) => s.last)
      .toSorted()
      .at(-1)!,
    behind: all
      .flatMap((s) => s.behind)
      .reduce<Counted['behind']>((list, b) => {
        const same = list.findIndex((o) => o.id === b.id)
        if (same < 0) return [...list, b]
        const o = list[same]!
        return list.with(same, { ...o, trials: o.trials + b.trials, right: o.right + b.right })
      }, [])
      .toSorted((a, b) => b.id - a.id)
      .slice(0, 6),
  }
}
const start = (d: number, way: number) =>
  maps.data.value?.starts.find((s) => s.degree === degrees[d] && s.down === (way === 1))
function ofKey(cell: LogMaps['cells'][number]) {
  look.value = {
    name: `${engrave(cell.key)}, ${cell.where}`,
    of: cell,
    query: { do: 'calls', ask: 'tones', keys: cell.key },
  }
}
const minutes = computed(() => maps.data.value?.minutes.reduce((n, w) => n + w.minutes, 0) ?? 0)
const long = (m: number) =>
  m < 90 ? `${Math.round(m)} ${Math.round(m) === 1 ? 'minute' : 'minutes'}` : `${Math.round(m / 60)} hours`
/* What leaves as a file is what is looked at. */
const query = computed(() => {
  const asked = Object.entries(filter.value).filter(([, v]) => v !== undefined)
  return asked.length ? `?${new URLSearchParams(asked.map(([k, v]) => [k, `${v}`]))}` : ''
})
const part = (x: number) => `${Math.round(100 * x)}%`
</script>

<template>
  <EmptyPlace
    v-if="maps.data.value && !maps.data.value.trials && chart === 'all' && weeks === '0' && tuning === 'all'"
    title="Nothing practised yet"
    text="Every call and every chorus that is judged is noted here, and drawn: what goes well, and where."
  >
    <Button as="router-link" :to="{ query: { do: 'calls' } }" label="Begin with calls" />
  </EmptyPlace>
  <div v-else-if="maps.data.value" class="log">
    <header>
      <h1>Log</h1>
      <p class="soft">
        {{ maps.data.value.trials }} things asked, {{ long(minutes)
        }}<template v-if="maps.data.value.lost"
          >; {{ maps.data.value.lost }} lines cannot be read and are left out</template
        >
      </p>
      <span class="space" />
      <Select
        v-model="chart"
        :options="[
          { id: 'all', name: 'every chart' },
          ...(charts.data.value ?? []).map((c) => ({ id: `${c.id}`, name: c.title })),
        ]"
        option-label="name"
        option-value="id"
        aria-label="of which chart"
      />
      <Select
        v-if="maps.data.value.tunings.length > 1"
        v-model="tuning"
        :options="[{ tuning: 'all', name: 'every instrument' }, ...maps.data.value.tunings]"
        option-label="name"
        option-value="tuning"
        aria-label="on which instrument"
      />
      <SegmentedChoice v-model="weeks" :options="spans" label="since when" />
      <Button as="a" :href="`/api/log/files/csv${query}`" label="CSV" variant="outlined" title="the log as a table" />
      <Button as="a" :href="`/api/log/files/json${query}`" label="JSON" variant="outlined" title="the log, whole" />
    </header>
    <div class="maps">
      <section>
        <h2>Keys and positions</h2>
        <KeyWheel :cells="maps.data.value.cells" :chosen="look?.of as LogMaps['cells'][number]" @choose="ofKey" />
      </section>
      <section class="changes">
        <h2>Changes, the weakest first</h2>
        <ul>
          <li v-for="c in maps.data.value.changes.slice(0, 9)" :key="`${c.from} ${c.to}`">
            <PressButton
              :class="{ chosen: look?.of === c }"
              @click="
                look = {
                  name: `${engrave(c.from)} to ${engrave(c.to)}`,
                  of: c,
                  query: { do: 'changes', mode: 'land', change: `${c.from},${c.to}`, play: 'yes' },
                  chart: filter.chart ?? c.chart,
                }
              "
            >
              <b><MusicText :symbol="c.from" /> → <MusicText :symbol="c.to" /></b>
              <span class="bar" :aria-label="`met ${c.right} of ${c.trials}`">
                <i class="met" :style="{ width: part(c.right / c.trials) }" />
              </span>
              <small
                >{{ c.right }} of {{ c.trials
                }}<template v-if="c.silent > 0.15"> · silence {{ part(c.silent) }}</template
                ><template v-if="c.onRoot > 0.3"> · on the root {{ part(c.onRoot) }}</template></small
              >
            </PressButton>
          </li>
        </ul>
        <p v-if="!maps.data.value.changes.length" class="soft">No change was played yet.</p>
      </section>
      <aside class="why" aria-live="polite">
        <template v-if="look">
          <h2>
            <MusicText :said="look.name" />{{ ' '
            }}<small v-if="look.of.trials">{{ look.of.right }} of {{ look.of.trials }} right at once</small>
          </h2>
          <p v-if="!look.of.trials" class="soft">Never asked for.</p>
          <ul v-else>
            <li v-for="r in lines.data.value?.rows" :key="r.id">
              <span>{{ when.format(new Date(r.at)) }}</span>
              <span class="what"
                ><MusicText :said="r.title" /><small v-if="barOf(r.id)">, bar {{ barOf(r.id) }}</small></span
              >
              <b :title="`of this; the whole of it went ${part(r.went)}`"
                >{{ behind(r.id)?.right }} of {{ behind(r.id)?.trials }}</b
              >
              <Button
                v-if="r.take"
                as="router-link"
                :to="{ query: { do: 'takes', take: `${r.take}`, bar: `${barOf(r.id) || 1}` } }"
                icon="pi pi-volume-up"
                variant="text"
                :aria-label="`hear ${r.title}${barOf(r.id) ? ` from bar ${barOf(r.id)} on` : ''}`"
              />
            </li>
          </ul>
          <Button
            as="router-link"
            :to="{ name: 'practice', params: { id: look.chart }, query: look.query }"
            :label="look.query.change ? 'Land it' : 'Practise this'"
          />
        </template>
        <p v-else class="soft">Press any spot: what is behind it is told, and how to practise it.</p>
      </aside>
      <section>
        <h2>On the neck</h2>
        <SegmentedChoice
          v-model="degree"
          :options="[{ id: 'all', name: 'all' }, ...degrees.map((d) => ({ id: d, name: engrave(d) }))]"
          label="which degree"
        />
        <MapGrid
          label="strings and positions"
          :rows="Array.from({ length: strings }, (_, i) => `string ${i + 1}`)"
          :columns="['1', '2', '3', '4', '5'].map((p) => `pos. ${p}`)"
          :cell="(r, c) => spot(r + 1, c + 1)"
          @choose="(of, name) => (look = { name, of, query: { do: 'calls', ask: 'tones', strings: 'any' } })"
        />
      </section>
      <section>
        <h2>Where from, which way</h2>
        <MapGrid
          label="degrees and directions"
          :rows="degrees"
          :columns="['upward', 'downward']"
          :cell="start"
          @choose="
            (of, name) =>
              (look = {
                name,
                of,
                query: { do: 'calls', ask: 'tones', start: of.degree, way: of.down ? 'down' : 'up' },
              })
          "
        />
      </section>
      <section>
        <h2>What is taken for what</h2>
        <TakenList :taken="maps.data.value.taken" />
      </section>
      <section v-if="maps.data.value.timing.trials">
        <h2>About the beat</h2>
        <TimingBars :timing="maps.data.value.timing" />
      </section>
      <section v-if="maps.data.value.swings.length">
        <h2>Swing, as asked and as played</h2>
        <SwingDots :swings="maps.data.value.swings" />
      </section>
      <section v-if="maps.data.value.minutes.length">
        <h2>Minutes, week by week</h2>
        <MinuteBars :minutes="maps.data.value.minutes" />
      </section>
      <section v-if="maps.data.value.weeks.length">
        <h2>Landed on, week by week</h2>
        <WeekBars :weeks="maps.data.value.weeks" />
      </section>
      <section v-if="maps.data.value.ladders.length">
        <h2>Ladders</h2>
        <LadderCurves :ladders="maps.data.value.ladders" />
      </section>
      <section class="whole">
        <h2>Line by line, the newest first</h2>
        <LogLines :filter="filter" />
      </section>
    </div>
  </div>
  <EmptyPlace v-else-if="maps.error.value" title="No answer" :text="maps.error.value.message" />
</template>

<style scoped>
.log {
  padding: 0.75rem 1.25rem 1.5rem;
  min-width: 0;
}

header {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

h1 {
  font-size: var(--text-xl);
}

h2 {
  font-size: var(--text-l);
  margin-bottom: 0.4rem;
}

.soft,
small {
  color: var(--soft);
}

.space {
  flex: 1;
}

.maps {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(21rem, 100%), 1fr));
  gap: 1.5rem 2rem;
  margin-top: 1rem;
  align-items: start;
}

.whole {
  grid-column: 1 / -1;
}

section :deep(.segments) {
  width: fit-content;
}

ul {
  list-style: none;
  padding: 0;
  margin: 0;
}

.changes button {
  display: grid;
  grid-template-columns: 7.5rem 1fr;
  gap: 0.1rem 0.75rem;
  align-items: center;
  width: 100%;
  padding: 0.3rem 0.4rem;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
  border-radius: var(--round);
}

.changes button:hover,
.changes .chosen {
  background: var(--lit);
}

.changes small {
  grid-column: 2;
}

.bar {
  display: block;
  height: 0.7rem;
  border: 1px solid var(--rule);
  background: var(--raised);
}

.met {
  display: block;
  height: 100%;
  background: var(--ink);
}

.why {
  border-left: 3px solid var(--third);
  padding: 0.25rem 0 0.25rem 1rem;
  min-height: 6rem;
}

.why li {
  display: flex;
  align-items: baseline;
  gap: 0.6rem;
  padding: 0.15rem 0;
}

.why .what {
  flex: 1;
  min-width: 0;
}

.why ul {
  margin-bottom: 0.6rem;
}
</style>
