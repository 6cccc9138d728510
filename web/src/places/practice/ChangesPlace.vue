<script setup lang="ts">
/* Free playing over the band: what this chorus asks for, each change with what became of it, and what to try next. */
import { useTitle } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import Button from 'primevue/button'
import Select from 'primevue/select'
import { playing, useLicks, useLines } from '../../api/kept'
import { useLog } from '../../api/log'
import { useGround } from '../../api/takes'
import { useCatalogue } from '../../api/queries'
import type { LineBody } from '../../api/client'
import { useBand } from '../../band/useBand'
import PressNeck from '../../neck/PressNeck.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import MusicText from '../../music/MusicText.vue'
import { spoken } from '../../music/text'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import { hint } from '../../shell/commands'
import { useCommands } from '../../shell/useCommands'
import EarButton from '../../listen/EarButton.vue'
import { clean } from '../../listen/rungs'
import { useByHand } from '../../listen/useByHand'
import { useEar } from '../../listen/useEar'
import { useRungs } from '../../listen/useRungs'
import TickBox from '../../shell/TickBox.vue'
import ChangeGrid from './ChangeGrid.vue'
import { usePlan } from './today/usePlan'
import { useFree } from './useFree'
import { useKeptChoruses } from './useKeptChoruses'
import { usePractised } from './usePractised'
import { metreOf } from '../../music/metre'
import { useVoice } from './useVoice'

useTitle('Practice · Undaris')
const { address, charts, id, map, chart } = usePractised()
const catalogue = useCatalogue()
const modes = computed(() => catalogue.data.value?.modes ?? [])
const asked = address.text('mode', 'land')
const mode = computed(() => modes.value.find((m) => m.id === asked.value) ?? modes.value[0])
/* Where it is played: the position that was chosen, else the first; for bends the first that a string can be bent in. */
const frets = address.text('frets', '')
const positions = computed(() => map.data.value?.positions ?? [])
const window = computed(
  () =>
    positions.value.find((p) => `${p.low}-${p.high}` === frets.value) ??
    positions.value.find((p) => !mode.value?.writes || p.low >= 5) ??
    positions.value[0],
)
const chords = computed<LineBody | undefined>(() => {
  const c = chart.value
  const w = window.value
  if (!c || !w) return undefined
  const { title, key, feel, tempo, beats, text } = c
  return { title, key, feel, tempo, beats, text, low: w.low, high: w.high, notes: [] }
})
/* What it is played over: the chart's chords, or for some ways others in their place; or what is made of a lick or line. */
const licks = useLicks()
const lines = useLines()
const made = computed(() => (mode.value?.with === 'line' ? lines.data.value : licks.data.value) ?? [])
const chosen = address.text('with', '')
const seed = ref(1)
const ground = useGround(
  chords,
  computed(() => {
    const m = mode.value
    if (!m) return undefined
    return {
      mode: m.id,
      with: (m.with && Number(chosen.value)) || undefined,
      seed: m.writes ? seed.value : undefined,
    }
  }),
)
const lacks = computed(() => !!mode.value?.with && !Number(chosen.value))
const over = computed(() => (lacks.value ? undefined : ground.data.value?.line))
/* Where the band plays those too, it plays them as it plays a line; or it plays first what is to be found by ear. */
const own = computed(() => ground.data.value?.lead ?? (ground.data.value?.band ? over.value : undefined))
const band = useBand()
watch(chart, (c) => c && band.take(c), { immediate: true })
watch(
  own,
  (line) => {
    const bars = ground.data.value?.bars.length ?? 12
    const lengths = ground.data.value?.lengths
    const { beats, tempo } = line ?? { beats: 4, tempo: 100 }
    band.offer(line && { title: mode.value!.name, beats, bars, lengths, tempo, cues: [], load: playing(line) })
  },
  { immediate: true },
)
onBeforeUnmount(() => band.offer(undefined))
/* A way to practise may have the band drop its chords; what the player set for other places stays. */
watch(
  () => !!mode.value?.dropChords,
  (drop) => (band.dropped = drop),
  { immediate: true },
)
onBeforeUnmount(() => (band.dropped = false))
/* What takes, the log and ladders call it. */
const tune = computed(() =>
  mode.value?.with === 'line' ? lines.data.value?.find((l) => `${l.id}` === chosen.value)?.title : undefined,
)
const title = computed(() => `${tune.value ?? chart.value?.title}, ${mode.value?.name.toLowerCase()}`)
const log = useLog()
const plan = usePlan()
const free = useFree(
  over,
  computed(() => mode.value?.id ?? 'land'),
  computed(() => own.value && mode.value?.name),
  /* Every chorus is noted in the log; a simulated player's only where it stands in for the player in a plan. */
  (c) => {
    if (c.simulated && !plan.kept.running) return
    const body = {
      chart: id.value,
      title: title.value,
      mode: mode.value!.id,
      pass: c.pass,
      line: over.value!,
      tempo: band.tempo,
      heard: c.heard,
    }
    c.logged = log.take(body).then((row) => row?.id)
  },
)
const { last, choruses, pass } = free
const ear = useEar()
/* Without an instrument at hand: the keyboard, or the neck on the page. */
const instrument = computed(() => map.data.value?.instrument)
const hand = useByHand(
  instrument,
  computed(() => window.value?.low ?? 0),
  free,
)
const trouble = computed(
  () => free.trouble.value || free.midi.trouble.value || ear.trouble || ground.error.value?.message,
)
/* What is to be played is drawn. */
const sheet = computed(() => (lacks.value ? undefined : ground.data.value?.shown))
/* The chord that comes next is spoken a beat ahead, where the player wants it. */
const voice = useVoice('ahead', false)
watch(
  () => (voice.on.value && free.playing.value && band.beat !== undefined ? band.beat + 1 : undefined),
  (beat) => {
    const c = chart.value
    if (beat === undefined || !c || beat < 0) return
    const bars = ground.data.value?.bars ?? []
    const whole = metreOf({ beats: c.beats, bars: bars.length, lengths: ground.data.value?.lengths }).length
    const change = bars.flat().find((x) => x.at === (beat % whole) * 960)
    if (change) voice.say(spoken(change.chord))
  },
)
/* A ladder of tempi for each chart and way to practise. */
const rungs = useRungs(
  computed(() => `${mode.value?.id} over ${id.value}`),
  () => title.value,
  () => ({ chart: id.value }),
)
watch(last, (c) => c && rungs.passed(clean(c.free.landed, c.free.landings.length) && !c.free.outside))
watch(free.playing, (now) => now && rungs.resume())
const stage = computed(() => {
  const { stages } = mode.value ?? { stages: [''] }
  const n = free.playing.value ? pass.value : choruses.value.length
  return { says: stages[Math.min(n, stages.length - 1)]!, of: stages.length, n: Math.min(n, stages.length - 1) + 1 }
})

/* Come here from a plan, the band begins by itself. */
const begin = watch(
  () => address.read('play') === 'yes' && !!ground.data.value && !lacks.value && !!band.chart,
  (now) => {
    if (!now) return
    const tempo = Number(address.read('tempo'))
    void address.write({ play: undefined, tempo: undefined })
    void nextTick(() => {
      if (tempo) band.setTempo(tempo)
      return band.offered ? band.hear(band.offered) : band.start(0)
    })
  },
  { immediate: true, flush: 'post' },
)
onBeforeUnmount(begin)

const { kept, keep, asLine } = useKeptChoruses(choruses, free.held, () => ({
  title: title.value,
  mode: mode.value!.id,
  chart: chart.value!.title,
}))
useCommands({ keep: () => (choruses.value.length ? void keep() : false) }, {})
</script>

<template>
  <EmptyPlace
    v-if="charts.data.value && !charts.data.value.length"
    title="Nothing to play over yet"
    text="The changes are those of a chart. Make one first."
  >
    <Button as="router-link" :to="{ name: 'new' }" label="Make a chart" />
  </EmptyPlace>
  <EmptyPlace v-else-if="map.error.value" title="Nothing can be played here" :text="map.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
  </EmptyPlace>
  <div v-else-if="chart && mode && map.data.value" class="changes">
    <header>
      <h1><MusicText :text="tune ?? chart.title" /></h1>
      <p class="of"><MusicText :text="over?.key ?? chart.key" /></p>
      <span class="space" />
      <Select v-model="asked" :options="modes" option-label="name" option-value="id" aria-label="what is practised" />
      <Select
        :model-value="window && `${window.low}-${window.high}`"
        :options="positions.map((p) => ({ id: `${p.low}-${p.high}`, name: `frets ${p.low} to ${p.high}` }))"
        option-label="name"
        option-value="id"
        aria-label="the position"
        @update:model-value="frets = $event"
      />
      <Select
        v-if="mode.with"
        v-model="chosen"
        :options="made.map((l) => ({ id: `${l.id}`, name: l.title }))"
        option-label="name"
        option-value="id"
        :placeholder="`which ${mode.with}`"
        :aria-label="`the ${mode.with}`"
      />
      <Button v-else-if="mode.writes" label="Something else" variant="outlined" @click="seed++" />
      <Button
        label="MIDI"
        :variant="free.midi.on.value ? undefined : 'outlined'"
        :aria-pressed="free.midi.on.value"
        title="a MIDI guitar or keyboard in place of the microphone"
        @click="free.midi.turn"
      />
      <Button
        label="Keys"
        :variant="hand.on.value ? undefined : 'outlined'"
        :aria-pressed="hand.on.value"
        title="the computer's keyboard, or the neck on the page, as the instrument"
        @click="hand.on.value = !hand.on.value"
      />
      <EarButton :instrument="map.data.value.instrument" />
    </header>
    <section class="ask" aria-live="polite">
      <p class="stage">
        <MusicText :text="stage.says" /><small v-if="stage.of > 1">chorus {{ stage.n }} of {{ stage.of }}</small>
      </p>
      <p class="says">{{ mode.about }}</p>
    </section>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <ChangeGrid
      v-if="ground.data.value"
      :bars="ground.data.value.bars"
      :metre="metreOf({ beats: chart.beats, bars: ground.data.value.bars.length, lengths: ground.data.value.lengths })"
      :landings="free.landings.value"
      :beat="free.playing.value ? band.beat : undefined"
      :close="!!sheet || hand.on.value"
    />
    <PressNeck
      v-if="hand.on.value && instrument && window"
      label="the neck: press a place to play it, or the key that is written there"
      :height="168"
      :instrument="instrument"
      :low="window.low"
      :high="window.high"
      :written="hand.written.value"
      @down="hand.press"
      @up="hand.lift"
    />
    <StaffDrawing v-if="sheet" :score="sheet" :clock="free.tick" fingers close />
    <section v-if="last" class="result" role="status">
      <p>
        <small v-if="stage.of > 1">Chorus {{ choruses.length }}: {{ last.free.asked }}</small>
        <b><MusicText :text="`${last.free.good}.`" /></b> Try: <MusicText :text="last.free.try" />.
        <small v-for="s in last.free.said" :key="s">{{ s }}.</small>
      </p>
      <Button
        :label="kept ? `Kept ${kept}` : free.held.value.length > 1 ? 'Keep the last two' : 'Keep it'"
        icon="pi pi-bookmark"
        :disabled="kept > 0"
        :title="hint('keep')"
        @click="keep"
      />
      <Button label="Make a line of it" variant="outlined" @click="asLine" />
    </section>
    <p v-else class="hint">
      <template v-if="lacks">Choose above which {{ mode.with }} it is.</template>
      <template v-else-if="hand.on.value"
        >Press play, and play by the keys that are written on the neck, or on the neck itself.</template
      >
      <template v-else-if="ear.on">Press play and play along: every change is told as it is met.</template>
      <template v-else>Turn the ear on above, then press play. Or have a simulated player play along.</template>
    </p>
    <footer>
      <Button label="Have a simulated player play it" variant="outlined" @click="free.simulate" />
      <TickBox v-if="voice.can.value" v-model="voice.on.value">say the next chord a beat ahead</TickBox>
      <TickBox :model-value="!!rungs.rung.value" @update:model-value="rungs.turn">
        climb in tempo as it comes clean<template v-if="rungs.rung.value">: {{ rungs.rung.value.tempo }}</template>
      </TickBox>
      <ol v-if="choruses.length > 1" class="choruses" aria-label="choruses so far">
        <li v-for="(c, i) in choruses.slice(-8)" :key="i">
          {{ c.free.landed }}<small>of {{ c.free.landings.length }}</small>
        </li>
      </ol>
    </footer>
  </div>
</template>

<style scoped>
.changes {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 0.9rem;
  padding: 0.75rem 1.25rem 1.5rem;
  min-width: 0;
}

header,
footer,
.result {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

h1 {
  font-size: var(--text-xl);
}

.of,
.says,
.hint,
small {
  color: var(--soft);
}

.space {
  flex: 1;
}

.stage {
  font: 600 clamp(1.8rem, 4.6vw, 3.4rem) / 1.15 var(--font-display);
  text-wrap: balance;
}

.stage small {
  font: 400 var(--text-m) var(--font-text);
  margin-left: 1rem;
}

.says {
  font-size: var(--text-l);
  margin-top: 0.25rem;
}

.result p {
  flex: 1 1 20rem;
  font-size: var(--text-l);
}

.result small {
  display: block;
}

.choruses {
  display: flex;
  gap: 0.5rem;
  list-style: none;
  padding: 0;
}

.choruses li {
  padding: 0.2rem 0.6rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  font-weight: 600;
}

.choruses small {
  font-weight: 400;
  margin-left: 0.3rem;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}
</style>
