<script setup lang="ts">
/* What the core can do with the line: write bars, put in licks, dress it, lay an exercise over the chords. */
import { engrave } from '../../music/text'
import { toReactive } from '@vueuse/core'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import { askLine } from '../../api/kept'
import type { LineNote } from '../../api/client'
import { useCatalogue } from '../../api/queries'
import { useAddress } from '../../shell/useAddress'
import TickBox from '../../shell/TickBox.vue'
import DressForm from './DressForm.vue'
import FieldLine from './FieldLine.vue'
import LickForm from './LickForm.vue'
import { useSetting } from '../../memory/settings'
import SelectLine from './SelectLine.vue'
import WriteForm from './WriteForm.vue'
import { remember } from './useFiner'
import { useLineStrings } from './useLineStrings'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; bar: number; tab: string; note?: LineNote }>()
const { id } = useAddress()
const catalogue = useCatalogue()
const bars = computed(() => props.state.study.value?.score.measures.filter((m) => m.number > 0).length ?? 12)
const { sets, on } = useLineStrings(props.state)
const rests = [
  { id: 0, name: 'none: through every bar' },
  ...[1, 2, 3].map((b) => ({ id: b, name: `after beat ${b} of each chord's last bar` })),
]
const begins = [
  { id: 0, name: 'on the chord' },
  ...[1, 2, 3, 4, 8].map((n) => ({
    id: n,
    name: n % 4 ? `${n} sixteenth${n > 1 ? 's' : ''} late` : `${n / 4} beat${n > 4 ? 's' : ''} late`,
  })),
]
/* Steps of the scale, as they are typed. */
const asked: Record<string, { label: string; usual: string }> = {
  'scale-cell': { label: 'Cell', usual: '1 2 3 5' },
  'key-triads-145': { label: 'Steps of the key', usual: '1 4 5' },
}
const cell = ref('')
const usual = {
  drill: 'run',
  pace: 'eighths',
  from: 'lowest',
  order: 1,
  down: false,
  approach: 'plain',
  until: 0,
  offset: 0,
  double: false,
}
/* Kept from panel to panel and from line to line. */
const drill = toReactive<typeof usual>(useSetting('exercise', usual))
const froms = ['lowest', 'R', '3', 'b3', '5', 'b7', '7'].map((d) => ({
  id: d,
  name: d !== 'lowest' ? `from the ${d === 'R' ? 'root' : engrave(d)}` : 'from the lowest tone',
}))
function practise() {
  const line = props.state.line.value
  if (!line) return
  const task = {
    ...drill,
    from: drill.from === 'lowest' ? '' : drill.from,
    approach: drill.approach === 'plain' ? '' : drill.approach,
    order: drill.drill === 'orders' ? drill.order : 0,
    cell: asked[drill.drill] ? (cell.value.match(/\d+/g) ?? []).map(Number) : undefined,
  }
  remember(id.value, task)
  void props.state.take(askLine.drill(line, task))
}
const approaches = computed(() => (catalogue.data.value?.approaches ?? []).map((d) => ({ ...d, id: d.id || 'plain' })))
const about = computed(() => catalogue.data.value?.drills.find((d) => d.id === drill.drill)?.about ?? '')
</script>

<template>
  <section v-if="catalogue.data.value" class="work-panel">
    <WriteForm v-if="tab === 'write'" :state="state" :bars="bars" />
    <LickForm v-else-if="tab === 'lick'" :state="state" :bar="bar" :bars="bars" :note="note" />
    <DressForm v-else-if="tab === 'dress'" :state="state" />
    <div v-else class="form">
      <SelectLine id="drill" v-model="drill.drill" label="Exercise" :options="catalogue.data.value.drills" />
      <p class="hint">{{ about }}</p>
      <SelectLine id="drill-pace" v-model="drill.pace" label="Pace" :options="catalogue.data.value.paces" />
      <SelectLine id="drill-from" v-model="drill.from" label="Start" :options="froms" />
      <FieldLine v-if="drill.drill === 'orders'" label="Order" for="drill-order">
        <InputNumber v-model="drill.order" input-id="drill-order" :min="1" :max="24" size="small" /> of 24
      </FieldLine>
      <FieldLine v-if="asked[drill.drill]" :label="asked[drill.drill]!.label" for="drill-cell">
        <InputText id="drill-cell" v-model="cell" size="small" :placeholder="asked[drill.drill]!.usual" />
      </FieldLine>
      <SelectLine id="drill-approach" v-model="drill.approach" label="Lead in" :options="approaches" />
      <SelectLine id="drill-strings" v-model="on" label="Strings" :options="sets" />
      <SelectLine id="drill-until" v-model="drill.until" label="Rest" :options="rests" />
      <SelectLine id="drill-offset" v-model="drill.offset" label="Begins" :options="begins" />
      <TickBox v-model="drill.down">downwards</TickBox>
      <TickBox v-model="drill.double">double time in the second half of each chord</TickBox>
      <p class="do"><Button label="Lay it over the chords" @click="practise" /></p>
    </div>
  </section>
</template>

<style scoped>
.work-panel :deep(.form) {
  display: grid;
  gap: 0.35rem;
  margin-top: 0.5rem;
}

.work-panel :deep(.p-inputnumber-input) {
  width: 3.6rem;
}

/* What is chosen by the keyboard does not come to lie under the buttons at the foot. */
.work-panel :deep(.p-select),
.work-panel :deep(input),
.work-panel :deep(button) {
  scroll-margin-bottom: 6.5rem;
}

.work-panel :deep(.do) {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  padding: 0.4rem 0;
  position: sticky;
  bottom: 0;
  background: var(--paper);
}

.work-panel :deep(.hint) {
  color: var(--soft);
  font-size: var(--text-s);
}
</style>
