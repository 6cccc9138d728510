<script setup lang="ts">
/* Every way to divide the neck, on any strings. */
import { computed, ref, toRef } from 'vue'
import Button from 'primevue/button'
import type { Instrument, Position } from '../../api/client'
import { useDivision } from '../../api/division'
import { stringsOf, type Region } from '../../neck/region'
import PressButton from '../../shell/PressButton.vue'
import { Select, InputNumber } from '../../shell/parts'

const props = defineProps<{
  /** Where the hand is, and by which way it was chosen. */
  now?: Region | Position
  own?: Region
  way?: string
  musicKey?: string
  instrument?: Instrument
}>()
const emit = defineEmits<{
  own: [low: number, high: number, strings: number[], way?: string]
  leave: []
}>()

const division = useDivision(toRef(props, 'musicKey'), ref(true))
const last = computed(() => props.instrument?.last ?? 22)
const count = computed(() => props.instrument?.open.length ?? 6)
const low = ref(props.now?.low ?? 5)
const high = ref(props.now?.high ?? 9)
/* Those that are played on; all of them is none in particular. */
const strings = ref<number[]>(props.now?.strings ?? [])
const by = ref(props.way ?? 'windows')
const wrong = ref('')
const ways = computed(() => division.data.value?.ways ?? [])
const chosenWay = computed(() => ways.value.find((w) => w.id === by.value))
const regions = computed(() => chosenWay.value?.regions ?? [])
const sets = computed(() => division.data.value?.strings ?? [])
const saysSet = computed(() => sets.value.find((s) => s.strings === strings.value.join(','))?.says)
function toggle(s: number) {
  const now = strings.value.length ? strings.value : Array.from({ length: count.value }, (_, i) => i + 1)
  const next = now.includes(s) ? now.filter((x) => x !== s) : [...now, s]
  strings.value = next.length === count.value ? [] : next.toSorted((a, b) => b - a)
}
const isOn = (s: number) => !strings.value.length || strings.value.includes(s)
function take(dividing?: string) {
  const [from, to] = [low.value, high.value]
  if (from === null || to === null || from < 0 || to > last.value || from > to) {
    wrong.value = `Frets on this neck begin at 0 and end at ${last.value}, and a region does not end before it begins.`
    return
  }
  emit('own', from, to, strings.value, dividing)
}
/* A region of a way: its frets, and its strings where it has some of its own. */
function region(r: { low: number; high: number; strings?: string }) {
  low.value = r.low
  high.value = r.high
  if (r.strings) strings.value = stringsOf(r.strings)
  take(by.value)
}
</script>

<template>
  <form class="own" @submit.prevent="take()">
    <fieldset class="strings">
      <legend>Strings</legend>
      <PressButton
        v-for="s in Array.from({ length: count }, (_, i) => count - i)"
        :key="s"
        :class="{ on: isOn(s) }"
        :aria-pressed="isOn(s)"
        :aria-label="`string ${s}`"
        @click="toggle(s)"
      >
        {{ s }}
      </PressButton>
      <Select
        :model-value="strings.join(',')"
        :options="sets"
        option-label="name"
        option-value="strings"
        placeholder="a set"
        aria-label="a set of strings"
        @update:model-value="strings = stringsOf($event)"
      />
      <small v-if="saysSet">{{ saysSet }}</small>
    </fieldset>
    <fieldset class="frets">
      <legend>Frets</legend>
      <label>from <InputNumber v-model="low" input-id="own-low" :min="-99" :max="99" :invalid="!!wrong" /></label>
      <label>to <InputNumber v-model="high" input-id="own-high" :min="-99" :max="99" :invalid="!!wrong" /></label>
      <Button type="submit" label="Use it" />
    </fieldset>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <fieldset v-if="ways.length" class="ways">
      <legend>Or by a way to divide the neck</legend>
      <Select
        v-model="by"
        :options="ways"
        option-label="name"
        option-value="id"
        aria-label="a way to divide the neck"
      />
      <small>{{ chosenWay?.says }}</small>
      <div class="regions">
        <Button
          v-for="(r, i) in regions"
          :key="i"
          :label="`${r.low}–${r.high}`"
          :title="r.name"
          :aria-label="r.name"
          variant="outlined"
          size="small"
          @click="region(r)"
        />
      </div>
    </fieldset>
    <Button v-if="own" label="Back to positions" variant="outlined" @click="emit('leave')" />
    <small>Or drag along the fret numbers under the neck.</small>
  </form>
</template>

<style scoped>
.own {
  display: grid;
  gap: 0.9rem;
  width: min(27rem, 88vw);
  max-height: 70vh;
  overflow-y: auto;
}

fieldset {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0;
  padding: 0;
  border: 0;
}

legend {
  padding: 0 0 0.3rem;
  font: 600 var(--text-m) var(--font-display);
}

.strings button {
  width: 2.4rem;
  height: 2.4rem;
  border: 1px solid var(--rule);
  border-radius: 50%;
  background: none;
  color: var(--soft);
  font: inherit;
  cursor: pointer;
}

.strings .on {
  background: var(--ink);
  color: var(--paper);
  border-color: var(--ink);
}

.strings :deep(.p-select) {
  flex: 1 1 8rem;
  min-width: 0;
}

.strings small,
.ways small {
  flex-basis: 100%;
}

.frets label {
  display: flex;
  align-items: center;
  gap: 0.4rem;
}

.own :deep(input) {
  width: 4.5rem;
}

.ways :deep(.p-select) {
  flex: 1;
}

.regions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.wrong {
  color: var(--danger);
  font-size: var(--text-s);
}

small {
  color: var(--soft);
  font-size: 0.875rem;
}
</style>
