<script setup lang="ts">
/* Free playing over the band: what this chorus asks for, each change with what became of it, and what to try next. */
import { useTitle } from '@vueuse/core'
import { computed, watch } from 'vue'
import Button from 'primevue/button'
import { useLog } from '../../api/log'
import PressNeck from '../../neck/PressNeck.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import MusicText from '../../music/MusicText.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import { useCommands } from '../../shell/useCommands'
import { useGoOn } from '../../shell/useGoOn'
import EarButton from '../../listen/EarButton.vue'
import { clean } from '../../listen/rungs'
import { useByHand } from '../../listen/useByHand'
import { useEar } from '../../listen/useEar'
import { useRungs } from '../../listen/useRungs'
import TickBox from '../../shell/TickBox.vue'
import ChangeGrid from './ChangeGrid.vue'
import ChangesHead from './ChangesHead.vue'
import ChorusResult from './ChorusResult.vue'
import HoldChoice from './HoldChoice.vue'
import HoldNow from './HoldNow.vue'
import { usePlan } from './today/usePlan'
import { useAhead } from './useAhead'
import { useChordLoop } from './useChordLoop'
import { useChosen } from './useChosen'
import { useEnough } from '../../band/useEnough'
import { useFree } from './useFree'
import { useHolding } from './useHolding'
import { useKeptChoruses } from './useKeptChoruses'
import { useLimits } from './useLimits'
import { metreOf } from '../../music/metre'
import { usePlayedOver } from './usePlayedOver'
import WhenLost from './WhenLost.vue'

useTitle('Practice · Undaris')
const chosen = useChosen()
const { charts, id, map, chart, mode, position, ground, lacks, over, own, sheet, title, chord, easy } = chosen
const { band, trouble: silent } = usePlayedOver(chosen)
const log = useLog()
const plan = usePlan()
const limits = useLimits(chosen)
const free = useFree(
  over,
  computed(() => mode.value?.id ?? 'land'),
  computed(() => own.value && mode.value?.name),
  limits.hold,
  /* Every chorus is noted in the log; a simulated player's only where it stands in for the player in a plan. */
  (c) => {
    if (c.simulated && !plan.kept.running) return
    const body = {
      chart: id.value,
      title: title.value,
      mode: mode.value!.id,
      with: (mode.value!.with === 'lick' && Number(chosen.chosen.value)) || undefined,
      pass: c.pass,
      line: over.value!,
      tempo: band.tempo,
      heard: c.heard,
      played: c.span,
    }
    c.logged = log.take(body).then((row) => row?.id)
  },
)
const { last, choruses, pass } = free
const holding = useHolding(limits, chosen, pass, () => free.playing.value)
const ear = useEar()
/* Without an instrument at hand: the keyboard, or the neck on the page. */
const instrument = computed(() => map.data.value?.instrument)
const hand = useByHand(
  instrument,
  computed(() => position.value?.low ?? 0),
  free,
  chosen.address.read('keys') === 'yes',
)
const trouble = computed(
  () => silent.value || free.trouble.value || free.midi.trouble.value || ear.trouble || ground.error.value?.message,
)
const voice = useAhead(chosen, () => free.playing.value)
/* A ladder of tempi for each chart and way to practise. */
const rungs = useRungs(
  computed(() => `${mode.value?.id} over ${id.value}`),
  () => title.value,
  () => ({ chart: id.value }),
  () => chart.value?.tempo,
)
watch(
  last,
  (c) =>
    c &&
    !c.free.partial &&
    rungs.passed(clean(c.free.landed, c.free.landings.length) && !c.free.outside && !c.free.broken),
)
useEnough(
  () => mode.value?.most,
  () => free.playing.value,
)
const goOn = useGoOn()
watch(free.playing, (now) => {
  if (!now) return
  rungs.resume()
  goOn.began({ title: `${mode.value?.name}: ${title.value}`, tempo: band.tempo })
})
const stage = computed(() => {
  const { stages } = mode.value ?? { stages: [''] }
  const n = free.playing.value ? pass.value : choruses.value.length
  return { says: stages[Math.min(n, stages.length - 1)]!, of: stages.length, n: Math.min(n, stages.length - 1) + 1 }
})

const { kept, keep, asLine } = useKeptChoruses(choruses, free.held, () => ({
  title: title.value,
  mode: mode.value!.id,
  chart: chart.value!.title,
}))
const loop = useChordLoop(chosen, () => free.playing.value, free.tick)
useCommands({
  loop: () => loop.turn(),
  keep: { do: () => void keep(), can: () => choruses.value.length > 0 && !kept.value },
})
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
    <ChangesHead :chosen="chosen">
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
      <HoldChoice v-if="limits.can.value" :limits="limits" :holding="holding" />
      <EarButton :instrument="map.data.value.instrument" />
    </ChangesHead>
    <section class="ask" aria-live="polite">
      <p class="stage">
        <MusicText :said="stage.says" /><small v-if="stage.of > 1">chorus {{ stage.n }} of {{ stage.of }}</small>
      </p>
      <p class="says">
        {{ mode.about }}
        <template v-if="mode.most">After {{ mode.most }} choruses the band ends: enough for a hand.</template>
      </p>
      <HoldNow v-if="holding.holds.value.length" :holding="holding" />
    </section>
    <WhenLost v-if="free.playing.value" :chosen="chosen" />
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <ChangeGrid
      v-if="ground.data.value"
      :bars="ground.data.value.bars"
      :metre="metreOf({ beats: chart.beats, bars: ground.data.value.bars.length, lengths: ground.data.value.lengths })"
      :landings="free.landings.value"
      :beat="free.playing.value ? band.beat : undefined"
      :close="!!sheet || hand.on.value"
      :only="chord"
      :loop="band.loop"
      @loop="loop.of"
      @span="band.setLoop"
    />
    <PressNeck
      v-if="hand.on.value && instrument && position"
      label="the neck: press a place to play it, or the key that is written there"
      :height="168"
      :instrument="instrument"
      :low="position.low"
      :high="position.high"
      :written="hand.written.value"
      @down="hand.press"
      @up="hand.lift"
    />
    <StaffDrawing v-if="sheet" :score="sheet" :clock="free.tick" fingers close />
    <ChorusResult
      v-if="last"
      :chorus="last.free"
      :number="stage.of > 1 ? choruses.length : 0"
      :held="free.held.value.length"
      :kept="kept"
      :simulated="last.simulated"
      :planned="plan.kept.running"
      @write="asLine"
    />
    <p v-else class="hint">
      <template v-if="lacks">Choose above which {{ mode.with }} it is.</template>
      <template v-else-if="hand.on.value"
        >Press play, and play by the keys that are written on the neck, or on the neck itself.</template
      >
      <template v-else-if="ear.on">Press play and play along: every change is told as it is met.</template>
      <template v-else
        >Turn the ear on above, then press play; without it, MIDI or Keys nothing is heard, and nothing counts. Or have
        a simulated player play along.</template
      >
    </p>
    <footer>
      <Button label="Have a simulated player play it" variant="outlined" :disabled="!over" @click="free.simulate" />
      <TickBox v-if="voice.can.value" v-model="voice.on.value">say the next chord a beat ahead</TickBox>
      <TickBox v-if="mode.easier" v-model="easy">easier on the hand: {{ mode.easier }}</TickBox>
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
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 0.9rem;
  padding: 0.75rem 1.25rem 1.5rem;
  min-width: 0;
}

footer {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

.says,
.hint,
small {
  color: var(--soft);
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
