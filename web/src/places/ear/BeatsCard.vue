<script setup lang="ts">
/* Beats, chords and tuning of the recording: what was found, with its rivals, and what its player says to it. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { useCatalogue, useCharts } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import FieldRow from '../../shell/FieldRow.vue'
import { useCommand } from '../../shell/useCommands'
import { beatAt, secondOf } from '../../recording/inHand'
import type { MeasuredState } from './useMeasured'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

const props = defineProps<{ work: RecordingWork; measured: MeasuredState; sound: RecordingSound; taps: number }>()
const emit = defineEmits<{ chart: [] }>()
const charts = useCharts()
const catalogue = useCatalogue()
const tap = useCommand('tap')
const hearing = computed(() => props.work.hearing.value!)
const tempo = computed(() => {
  const a = hearing.value.anchors
  return a.length > 1 ? Math.round((600 * (a.at(-1)!.beat - a[0]!.beat)) / (a.at(-1)!.at - a[0]!.at)) / 10 : undefined
})
const rivals = computed(() => props.measured.pulses.value.filter((p) => Math.abs(p.tempo - (tempo.value ?? 0)) > 1))
const here = () => props.sound.at.value
/** Bar 1 begins at the beat that is nearest to here. */
const barOne = () => {
  const beat = beatAt(hearing.value.anchors, here())
  if (beat !== undefined) void props.measured.correct({ first: secondOf(hearing.value.anchors, Math.round(beat))! })
}
const chartOptions = computed(() => [{ id: 0, title: 'no chart' }, ...(charts.data.value ?? [])])
const chart = computed({
  get: () => props.work.body.value?.chart ?? 0,
  set: (id) => props.work.record.change('its chart', { chart: id || undefined }),
})
const chords = ref<string>()
const text = computed({ get: () => chords.value ?? hearing.value.chords, set: (v) => (chords.value = v) })
function keepChords() {
  if (chords.value !== undefined) props.work.put('its chords', { chords: chords.value })
  chords.value = undefined
}
const takeChords = () => {
  const heard = props.measured.chords.value
  if (!heard) return
  props.work.record.change('its chords', { key: props.work.body.value?.key || heard.keys[0]?.key, hearing: { ...hearing.value, chords: heard.text } }) // prettier-ignore
}
const differing = computed(() => props.measured.chords.value?.chords.filter((c) => !c.agrees).length ?? 0)
const feels = computed(() => [{ id: '', name: 'not said' }, ...(catalogue.data.value?.feels ?? [])])
</script>

<template>
  <section class="card" aria-label="beats and chords">
    <p v-if="measured.doing.value" role="status" class="soft">{{ measured.doing.value }} …</p>
    <p v-if="measured.trouble.value" class="trouble" role="alert">{{ measured.trouble.value }}</p>
    <div class="row">
      <FieldRow label="Beats a minute" for="tempo">
        <InputNumber
          input-id="tempo"
          :model-value="tempo ?? null"
          :min="20"
          :max="400"
          :max-fraction-digits="1"
          size="small"
          @update:model-value="
            (t) =>
              t && t !== tempo && measured.correct({ tempo: t, first: hearing.anchors.length ? undefined : here() })
          "
        />
      </FieldRow>
      <Button label="Half" variant="outlined" title="half as many beats" @click="measured.correct({ times: 0.5 })" />
      <Button label="Twice" variant="outlined" title="twice as many beats" @click="measured.correct({ times: 2 })" />
      <Button v-bind="tap" :label="taps ? `Tap: ${taps}` : 'Tap the beat'" variant="outlined" />
      <Button
        label="Bar 1 begins here"
        variant="outlined"
        title="at the beat nearest to where you are"
        :disabled="!measured.known.value"
        @click="barOne"
      />
      <Button
        v-if="measured.known.value"
        label="A beat earlier"
        variant="text"
        @click="measured.correct({ first: secondOf(hearing.anchors, -1) })"
      />
      <Button
        v-if="measured.known.value"
        label="later"
        variant="text"
        @click="measured.correct({ first: secondOf(hearing.anchors, 1) })"
      />
      <Button label="Find it" variant="text" title="look for the beats anew" @click="measured.find()" />
      <FieldRow label="Beats in a bar" for="beats">
        <InputNumber
          input-id="beats"
          :model-value="hearing.beats"
          :min="2"
          :max="12"
          size="small"
          @update:model-value="(n) => n && work.put('beats in a bar', { beats: n })"
        />
      </FieldRow>
    </div>
    <p v-if="rivals.length" class="soft">
      It could be
      <Button v-for="p in rivals" :key="p.tempo" :label="p.says" variant="link" @click="measured.take(p)" />
    </p>
    <div class="row">
      <FieldRow label="It plays the chart" for="of-chart">
        <Select
          v-model="chart"
          input-id="of-chart"
          :options="chartOptions"
          option-label="title"
          option-value="id"
          filter
          reset-filter-on-hide
        />
      </FieldRow>
      <FieldRow v-if="chart" label="Bar 1 is the chart's bar" for="first-bar">
        <InputNumber
          input-id="first-bar"
          :model-value="hearing.first + 1"
          :min="1"
          :max="512"
          size="small"
          @update:model-value="(n) => n && work.put('where the chart begins', { first: n - 1 })"
        />
      </FieldRow>
      <template v-else>
        <FieldRow label="Key" for="of-key">
          <InputText
            id="of-key"
            size="small"
            :model-value="work.body.value?.key ?? ''"
            maxlength="4"
            @change="
              work.record.change('its key', { key: ($event.target as HTMLInputElement).value.trim() || undefined })
            "
          />
        </FieldRow>
        <FieldRow label="Feel" for="of-feel">
          <Select
            input-id="of-feel"
            :model-value="hearing.feel"
            :options="feels"
            option-label="name"
            option-value="id"
            @update:model-value="(feel) => work.put('its feel', { feel })"
          />
        </FieldRow>
      </template>
      <FieldRow label="Your hand, from fret" for="from-fret">
        <InputNumber
          input-id="from-fret"
          :model-value="hearing.high ? hearing.low : null"
          placeholder="anywhere"
          :min="0"
          :max="24"
          size="small"
          @update:model-value="
            (low) =>
              work.put(
                'where the hand is',
                low === null ? { low: 0, high: 0 } : { low, high: Math.max(low + 4, hearing.high) },
              )
          "
        />
      </FieldRow>
      <FieldRow v-if="hearing.high" label="to fret" for="to-fret">
        <InputNumber
          input-id="to-fret"
          :model-value="hearing.high"
          :min="hearing.low + 2"
          :max="27"
          size="small"
          @update:model-value="(high) => high && work.put('where the hand is', { high })"
        />
      </FieldRow>
      <FieldRow label="Its tuning, in cents" for="cents">
        <InputNumber
          input-id="cents"
          :model-value="hearing.cents"
          :min="-100"
          :max="100"
          size="small"
          @update:model-value="(cents) => work.put('its tuning', { cents: cents ?? 0 })"
        />
      </FieldRow>
    </div>
    <template v-if="!chart">
      <label class="chords" for="of-chords">Chords of its bars, from bar 1 on</label>
      <textarea id="of-chords" v-model="text" rows="2" placeholder="| C7 | F7 | C7 | % |" @change="keepChords" />
    </template>
    <p v-if="measured.chords.value" class="soft">
      <template v-if="chart">{{
        differing
          ? `In ${differing} places other chords are heard than the chart has.`
          : 'What is heard agrees with the chart.'
      }}</template>
      <template v-else>
        Heard:
        <MusicText
          :said="
            measured.chords.value.keys[0]
              ? `${measured.chords.value.keys[0].key}, since ${measured.chords.value.keys[0].why}`
              : 'no key'
          "
        />
        <Button label="Take the chords that are heard" variant="outlined" @click="takeChords" />
      </template>
      <Button v-if="!chart && hearing.chords" label="Make a chart of it" variant="outlined" @click="emit('chart')" />
    </p>
  </section>
</template>

<style scoped>
.card {
  min-width: 0;
  display: grid;
  gap: 0.5rem;
  align-content: start;
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.5rem 0.8rem;
}

.row :deep(input) {
  width: 5.5rem;
}

.soft,
.chords {
  color: var(--soft);
}

.trouble {
  color: var(--danger);
}

textarea {
  width: 100%;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--rule);
  border-radius: var(--round);
  padding: 0.4rem 0.6rem;
}
</style>
