<script setup lang="ts">
/* The core writes bars of the line: a word for the style, sliders for those who want them, and one press for a little more
   of one thing. */
import { maxFrets } from '../../api/facts'
import { toReactive } from '@vueuse/core'
import { computed, watch } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import Slider from 'primevue/slider'
import { usePalettes } from '../../api/palettes'
import { askLine } from '../../api/kept'
import { useCatalogue } from '../../api/queries'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import TickBox from '../../shell/TickBox.vue'
import FieldLine from './FieldLine.vue'
import { useSetting } from '../../memory/settings'
import SelectLine from './SelectLine.vue'
import type { LineState } from './useLine'
import { useLineStrings } from './useLineStrings'
import { asks, askedOf, fits, inStyle, plain, seasoned, type Wished } from './wish'

const props = defineProps<{ state: LineState; bars: number }>()
const catalogue = useCatalogue()
const { all: palettes } = usePalettes()
const { sets, on } = useLineStrings(props.state)
/* Kept from panel to panel; each line has its own bars. */
const wish = toReactive<Wished>(useSetting('wish', plain))
wish.from = 1
wish.to = 0
const targets = [
  { name: 'any tone, thirds liked best', id: 'any' },
  { name: 'thirds only', id: 'third' },
  { name: 'thirds and sevenths', id: 'third,seventh' },
  { name: 'roots', id: 'root' },
  { name: 'extensions: 9, 11 or 13', id: 'extension' },
]
const five = [1, 2, 3, 4, 5].map((n) => ({ id: n, name: String(n) }))
const words = computed(() => catalogue.data.value?.words ?? [])
const fitting = computed(() => {
  const feel = catalogue.data.value?.feels.find((f) => f.id === props.state.line.value?.feel)
  return words.value.find((w) => w.id === feel?.word)
})
const word = computed(() => (wish.word === fits ? fitting.value : words.value.find((w) => w.id === wish.word)))
const styles = computed(() => [{ id: fits, name: `what fits: ${fitting.value?.name ?? ''}` }, ...words.value])
function style(id: string | undefined) {
  const chosen = id === fits ? fitting.value : words.value.find((w) => w.id === id)
  if (chosen) Object.assign(wish, inStyle(chosen), { word: id })
}
/* What fits follows the line. */
watch(fitting, (now) => now && wish.word === fits && style(fits), { immediate: true })
const changed = computed(() => seasoned(wish, word.value).length)
function write(change: Partial<Wished> = {}) {
  Object.assign(wish, change)
  const line = props.state.line.value
  if (line) void props.state.take(askLine.write(line, askedOf(wish, props.bars, fitting.value?.id)))
}
/** The window of the line; it is three frets wide at least. */
function frets(low: number, high: number) {
  void props.state.change({ low, high: Math.max(high, low + 3) })
}
</script>

<template>
  <div v-if="catalogue.data.value" class="form">
    <SelectLine
      id="wish-word"
      :model-value="wish.word"
      label="Style"
      :options="styles"
      @update:model-value="style($event)"
    />
    <p class="hint">{{ word?.about }}.</p>
    <details>
      <summary>
        How it is played<template v-if="changed"> · {{ changed }} of your own</template>
      </summary>
      <label v-for="t in catalogue.data.value.tastes" :key="t.id" class="taste" :title="t.about">
        <span>{{ t.name }}</span>
        <Slider
          :model-value="wish.spice[t.id] ?? 0"
          :max="10"
          :aria-label="t.name"
          @update:model-value="wish.spice = { ...wish.spice, [t.id]: $event as number }"
        />
        <output>{{ wish.spice[t.id] ?? 0 }}</output>
      </label>
    </details>
    <FieldLine label="Bars" for="wish-from">
      <InputNumber v-model="wish.from" input-id="wish-from" :min="1" :max="bars" size="small" />
      to
      <InputNumber
        :model-value="wish.to || bars"
        input-id="wish-to"
        :min="1"
        :max="bars"
        size="small"
        aria-label="last bar"
        @update:model-value="wish.to = $event as number"
      />
    </FieldLine>
    <FieldLine label="Frets" for="wish-low">
      <InputNumber
        :model-value="state.line.value?.low"
        input-id="wish-low"
        :min="0"
        :max="24"
        size="small"
        @update:model-value="frets($event as number, state.line.value?.high ?? 4)"
      />
      to
      <InputNumber
        :model-value="state.line.value?.high"
        input-id="wish-high"
        :min="3"
        :max="maxFrets"
        size="small"
        aria-label="last fret"
        @update:model-value="frets(state.line.value?.low ?? 0, $event as number)"
      />
    </FieldLine>
    <SelectLine id="wish-rhythm" v-model="wish.rhythm" label="Rhythm" :options="catalogue.data.value.rhythms" />
    <FieldLine label="Density">
      <SegmentedChoice v-model="wish.density" :options="five" label="density" />
    </FieldLine>
    <SelectLine id="wish-phrasing" v-model="wish.phrasing" label="Phrasing" :options="catalogue.data.value.phrasings" />
    <SelectLine id="wish-closing" v-model="wish.closing" label="Close" :options="catalogue.data.value.closings" />
    <SelectLine id="wish-contour" v-model="wish.contour" label="Contour" :options="catalogue.data.value.contours" />
    <SelectLine id="wish-targets" v-model="wish.targets" label="Land on" :options="targets" />
    <SelectLine id="wish-strings" v-model="on" label="Strings" :options="sets" />
    <SelectLine
      id="wish-palette"
      :model-value="state.line.value?.palette"
      label="Palette"
      :options="palettes"
      @update:model-value="state.change({ palette: $event })"
    />
    <TickBox v-model="wish.chordTones">chord tones only</TickBox>
    <TickBox v-model="wish.approach">approach notes from outside the palette</TickBox>
    <div class="do">
      <Button label="Write" @click="write()" />
      <Button
        v-for="a in asks"
        :key="a.name"
        :label="a.name"
        size="small"
        variant="outlined"
        title="the same line, but for this; locked bars stay"
        @click="write(a.more(wish))"
      />
    </div>
    <p class="hint">Press a bar’s chord line on the sheet to lock it: locked bars stay as they are.</p>
  </div>
</template>

<style scoped>
.taste {
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr) 1.5rem;
  align-items: center;
  gap: 0.9rem;
  min-height: 2.2rem;
}

.taste output {
  text-align: right;
  color: var(--soft);
}
</style>
