<script setup lang="ts">
/* Where on the neck: the five positions at hand, and behind them every way to divide it, on any strings. */
import { computed, ref, toRef } from 'vue'
import Button from 'primevue/button'
import type { Instrument, Position } from '../../api/client'
import { useDivision } from '../../api/division'
import { positionName, stringsOf, told, type Region } from '../../neck/region'
import PressButton from '../../shell/PressButton.vue'
import { useOpener } from '../../shell/later'
import { Select, InputNumber, Popover } from '../../shell/parts'

const props = defineProps<{
  positions: Position[]
  selected: number
  own?: Region
  /** by which way it was chosen */
  way?: string
  musicKey?: string
  instrument?: Instrument
}>()
const emit = defineEmits<{
  number: [n: number]
  own: [low: number, high: number, strings: number[], way?: string]
  leave: []
}>()

/** One button a position, up the neck, the open one first; it shows the octave that is in hand. */
const numbers = () => {
  const chosen = props.positions[props.selected]
  const five = [1, 2, 3, 4, 5].flatMap((n) => {
    const same = props.positions.filter((p) => p.number === n)
    const p = same.find((s) => s === chosen) ?? same.find((s) => !s.octave) ?? same[0]
    return p ? [{ n, p, on: p === chosen && !props.own, twice: same.length > 1 }] : []
  })
  return five.toSorted((a, b) => a.p.low - b.p.low)
}

const panel = ref<InstanceType<typeof Popover>>()
const opener = useOpener(panel)
const shown = ref(false)
const division = useDivision(toRef(props, 'musicKey'), shown)
const last = computed(() => props.instrument?.last ?? 22)
const count = computed(() => props.instrument?.open.length ?? 6)
const low = ref(5)
const high = ref(9)
/* Those that are played on; all of them is none in particular. */
const strings = ref<number[]>([])
const by = ref('windows')
const wrong = ref('')
const ways = computed(() => division.data.value?.ways ?? [])
const chosenWay = computed(() => ways.value.find((w) => w.id === by.value))
const regions = computed(() => chosenWay.value?.regions ?? [])
const sets = computed(() => division.data.value?.strings ?? [])
const saysSet = computed(() => sets.value.find((s) => s.strings === strings.value.join(','))?.says)
function open(e: Event) {
  const from = props.own ?? props.positions[props.selected]
  low.value = from?.low ?? 5
  high.value = from?.high ?? 9
  strings.value = from?.strings ?? []
  if (props.way) by.value = props.way
  wrong.value = ''
  shown.value = true
  opener(e)
}
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
  panel.value?.hide()
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
  <div class="segments windows" role="group" aria-label="position">
    <template v-for="{ n, p, on, twice } in numbers()" :key="n">
      <PressButton
        :class="{ on }"
        :aria-pressed="on"
        :title="`${positionName(p)} (${n})`"
        @click="on || emit('number', n)"
      >
        {{ p.low }}–{{ p.high
        }}<span v-if="on && p.shape" class="shape"> · {{ p.nut ? 'open ' : '' }}{{ p.shape }} shape</span>
      </PressButton>
      <PressButton
        v-if="on && twice"
        class="octave"
        :aria-label="`the same position an octave ${p.octave ? 'lower' : 'higher'}`"
        :title="`the same position an octave ${p.octave ? 'lower' : 'higher'} (${n} again)`"
        @click="emit('number', n)"
      >
        8ve
      </PressButton>
    </template>
    <PressButton
      :class="{ on: own }"
      :aria-pressed="!!own"
      aria-haspopup="dialog"
      title="other ways to divide the neck, and some strings alone"
      @click="open"
    >
      {{ own ? told(own) : 'elsewhere …' }}
    </PressButton>
    <Popover ref="panel" @hide="shown = false">
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
        <Button v-if="own" label="Back to positions" variant="outlined" @click="(emit('leave'), panel?.hide())" />
        <small>Or drag along the fret numbers under the neck.</small>
      </form>
    </Popover>
  </div>
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
