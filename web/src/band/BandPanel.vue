<script setup lang="ts">
/* Who plays, how loud, how hard; the ladder of tempi. */
import { computed, ref } from 'vue'
import ToggleSwitch from 'primevue/toggleswitch'
import { useCatalogue } from '../api/queries'
import SegmentedChoice from '../shell/SegmentedChoice.vue'
import { replaced } from './levels'
import { swingName } from './settings'
import { maxTempo, minTempo } from '../api/facts'
import { useBand } from './useBand'
import { useWriting } from './useWriting'
import PressButton from '../shell/PressButton.vue'
import { Select, InputNumber, Slider } from '../shell/parts'

const band = useBand()
const writing = useWriting()
const choruses = ref(2)
const catalogue = useCatalogue()
const compers = computed(() => catalogue.data.value?.compers ?? [])
const feel = computed(() => catalogue.data.value?.feels.find((f) => f.id === band.chart?.feel))
/* It is as the chart has it, or follows the tempo, unless it is set. */
const own = computed(() => (band.chart?.swing ?? 0) / 100)
const swing = computed(
  () => band.swing || own.value || feel.value?.swings[Math.round((band.tempo - minTempo) / 10)] || 0.5,
)
const basses = computed(() =>
  (catalogue.data.value?.basses ?? []).map((b) =>
    b.id === 'own' && feel.value ? { ...b, name: `${b.name}: ${feel.value.bass}` } : b,
  ),
)
const arc = computed(() => catalogue.data.value?.arcs.find((a) => a.id === band.settings.arc))
const course = computed(() => catalogue.data.value?.courses.find((c) => c.id === band.settings.course))
const counts = [
  { id: 'bar' as const, name: 'a bar' },
  { id: 'two' as const, name: 'two bars' },
  { id: 'pickup' as const, name: 'the pickup', title: 'the pickup alone, without sticks; nothing where there is none' },
]
const five = [1, 2, 3, 4, 5].map((n) => ({ id: n, name: String(n) }))
/* Where a recording plays, those whose place it takes are silent. */
const tracks = computed(() =>
  [
    { id: 'drums', name: 'Drums' },
    { id: 'bass', name: 'Bass' },
    { id: 'chords', name: 'Chords' },
    { id: 'lead', name: 'Lead' },
    { id: 'metronome', name: 'Click' },
  ].filter((t) => !band.record || !replaced.includes(t.id)),
)
function mute(id: string) {
  const m = band.settings.muted
  band.settings.muted = m.includes(id) ? m.filter((x) => x !== id) : [...m, id]
}
const isMuted = (id: string) => (id === 'metronome' ? !band.settings.click : band.settings.muted.includes(id))
const press = (id: string) => (id === 'metronome' ? (band.settings.click = !band.settings.click) : mute(id))
</script>

<template>
  <section class="panel">
    <h2>Who plays</h2>
    <slot />
    <div v-for="t in tracks" :key="t.id" class="row">
      <PressButton
        class="who"
        :aria-pressed="!isMuted(t.id)"
        :title="isMuted(t.id) ? 'bring in' : 'mute'"
        @click="press(t.id)"
      >
        <i class="pi" :class="isMuted(t.id) ? 'pi-volume-off' : 'pi-volume-up'" />{{ t.name }}
      </PressButton>
      <Slider
        v-model="band.settings.levels[t.id]"
        :min="0"
        :max="1.5"
        :step="0.05"
        :aria-label="`level of the ${t.name.toLowerCase()}`"
      />
    </div>
    <div class="row">
      <span>Chords on</span>
      <SegmentedChoice v-model="band.settings.comp" :options="compers" label="chords on" />
    </div>
    <div class="row">
      <span>Bass</span>
      <Select
        v-model="band.settings.bass"
        :options="basses"
        option-label="name"
        option-value="id"
        size="small"
        input-id="band-bass"
        aria-label="bass"
      />
    </div>
    <div class="row">
      <span>Click on</span>
      <Select
        v-model="band.settings.marks"
        :options="catalogue.data.value?.clicks ?? []"
        option-label="name"
        option-value="id"
        size="small"
        input-id="band-click"
        aria-label="click on"
      />
    </div>
    <label class="row"><span>Metronome only</span><ToggleSwitch v-model="band.settings.clickOnly" /></label>
    <label class="row">
      <span>Drop the chords <small>every second chorus or pass: let the line tell them</small></span>
      <ToggleSwitch v-model="band.settings.dropChords" />
    </label>
    <div class="row">
      <span>Counted in by</span>
      <SegmentedChoice v-model="band.settings.counted" :options="counts" label="counted in by" />
    </div>
    <h2>How</h2>
    <div class="row">
      <span>Intensity</span>
      <SegmentedChoice v-model="band.settings.intensity" :options="five" label="intensity" />
    </div>
    <div class="row">
      <span
        >Over the choruses <small>{{ arc?.about }}</small></span
      >
      <Select
        v-model="band.settings.arc"
        :options="catalogue.data.value?.arcs ?? []"
        option-label="name"
        option-value="id"
        size="small"
        aria-label="how it grows over the choruses"
      />
    </div>
    <div class="row">
      <span
        >Who rests <small>{{ course?.about }}</small></span
      >
      <Select
        v-model="band.settings.course"
        :options="catalogue.data.value?.courses ?? []"
        option-label="name"
        option-value="id"
        size="small"
        input-id="band-course"
        aria-label="who rests in which chorus"
      />
    </div>
    <div class="row">
      <span
        >Swing
        <small
          >{{ Math.round(swing * 100) }} %, {{ swingName(swing) }};
          <template v-if="!band.swing">{{ own ? 'as the chart has it' : 'follows the tempo' }}</template>
          <PressButton v-else class="plain" @click="band.swing = 0">{{
            own ? 'as the chart has it' : 'follow the tempo again'
          }}</PressButton></small
        ></span
      >
      <Slider
        :model-value="swing * 100"
        :min="50"
        :max="75"
        aria-label="swing"
        @update:model-value="band.swing = ($event as number) / 100"
      />
    </div>
    <div class="row">
      <span>Another take <small>the same feel, other notes</small></span>
      <PressButton class="who" @click="band.seed++">Take {{ band.seed }}</PressButton>
    </div>
    <h2>Take it along</h2>
    <div class="row">
      <label for="along-choruses">Choruses <small>with its intro and ending</small></label>
      <InputNumber v-model="choruses" input-id="along-choruses" :min="1" :max="32" :allow-empty="false" size="small" />
    </div>
    <div class="row">
      <span>{{ band.along(choruses).title }} <small>as it is set here, mixed as it is heard</small></span>
      <PressButton class="who" :disabled="!!writing.title" @click="writing.save(band.along(choruses))">
        <i class="pi pi-download" />Save as WAV
      </PressButton>
    </div>
    <h2>Tempo ladder</h2>
    <label class="row">
      <span>Climb <small>after each so many passes</small></span
      ><ToggleSwitch v-model="band.settings.ladder.on" />
    </label>
    <label class="row">
      <span
        >By how it goes
        <small>a pass you say was missed (X) leads a step down, three that were not a step up</small></span
      ><ToggleSwitch v-model="band.settings.ladder.goes" />
    </label>
    <div class="rungs">
      <label
        >from
        <InputNumber
          v-model="band.settings.ladder.from"
          :min="minTempo"
          :max="maxTempo"
          :allow-empty="false"
          size="small"
      /></label>
      <label
        >to
        <InputNumber
          v-model="band.settings.ladder.goal"
          :min="minTempo"
          :max="maxTempo"
          :allow-empty="false"
          size="small"
      /></label>
      <label
        >by <InputNumber v-model="band.settings.ladder.step" :min="1" :max="40" :allow-empty="false" size="small"
      /></label>
      <label
        >after
        <InputNumber v-model="band.settings.ladder.passes" :min="1" :max="32" :allow-empty="false" size="small" />
        passes</label
      >
    </div>
  </section>
</template>

<style scoped>
.panel {
  width: min(25rem, 86vw);
  max-height: 76vh;
  overflow-y: auto;
  display: grid;
  gap: 0.35rem;
  padding: 0.25rem;
}

h2 {
  font-size: var(--text-l);
  margin-top: 0.5rem;
}

h2:first-child {
  margin-top: 0;
}

.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 1rem;
  min-height: var(--target);
}

.row :deep(.p-slider) {
  width: 11rem;
  margin-right: 0.6rem;
}

small {
  display: block;
  color: var(--soft);
  line-height: 1.2;
}

.who {
  display: inline-flex;
  align-items: center;
  justify-self: start;
  gap: 0.6rem;
  min-width: 7rem;
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  cursor: pointer;
}

.who[aria-pressed='false'] {
  color: var(--soft);
  text-decoration: line-through;
  border-style: dashed;
}

.rungs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem 1rem;
}

.rungs label {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}

.row :deep(.p-inputnumber input) {
  width: 4.2rem;
}

.rungs :deep(input) {
  width: 4.2rem;
}
</style>
