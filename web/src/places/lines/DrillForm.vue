<script setup lang="ts">
/* An exercise over the chords of the line: which, and what is asked of it. It is shown before it is laid. */
import { computed } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import type { Instrument } from '../../api/client'
import { askLine } from '../../api/kept'
import { useCatalogue } from '../../api/queries'
import DrillSelect from '../../making/DrillSelect.vue'
import { useSetting } from '../../memory/settings'
import { useAddress } from '../../shell/useAddress'
import TickBox from '../../shell/TickBox.vue'
import DrillPreview from './DrillPreview.vue'
import FieldLine from './FieldLine.vue'
import SelectLine from './SelectLine.vue'
import { asksOf, entries, standing, taskOf, type Asked } from '../../making/drill'
import { remember } from './useFiner'
import { useLineStrings } from './useLineStrings'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; instrument?: Instrument }>()
const { id } = useAddress()
const catalogue = useCatalogue()
const { sets, on } = useLineStrings(props.state)
/* Kept from panel to panel and from line to line. */
const kept = useSetting<Asked>('exercise', { drill: 'run', pace: 'eighths' })
const field = <T extends string>(name: string) =>
  computed<T>({ get: () => String(kept.value[name] ?? '') as T, set: (v) => put(name, v) })
const put = (name: string, value: Asked[string]) => (kept.value = { ...kept.value, [name]: value })
const drill = field('drill')
const pace = field('pace')
const chosen = computed(() => catalogue.data.value?.drills.find((d) => d.id === drill.value))
const asks = computed(() => (catalogue.data.value ? asksOf(catalogue.data.value, drill.value, kept.value) : []))
const lists = computed(() => asks.value.filter((a) => a.kind !== 'switch'))
const switches = computed(() => asks.value.filter((a) => a.kind === 'switch'))
const taskFor = (id: string) =>
  catalogue.data.value && taskOf(catalogue.data.value, id, pace.value || 'eighths', kept.value)
const task = computed(() => taskFor(drill.value))
function practise() {
  const line = props.state.line.value
  if (!line || !task.value) return
  remember(id.value, task.value)
  void props.state.take(askLine.drill(line, task.value))
}
</script>

<template>
  <div v-if="catalogue.data.value" class="form">
    <FieldLine label="Exercise" for="drill"
      ><DrillSelect v-model="drill" input-id="drill">
        <template #look="{ drill: looked }">
          <DrillPreview
            v-if="looked !== drill && taskFor(looked)"
            :state="state"
            :task="taskFor(looked)!"
            :instrument="instrument"
          />
        </template> </DrillSelect
    ></FieldLine>
    <p class="hint">{{ chosen?.about }}</p>
    <DrillPreview v-if="task" :state="state" :task="task" :instrument="instrument" />
    <SelectLine id="drill-pace" v-model="pace" label="Pace" :options="catalogue.data.value.paces" />
    <template v-for="a in lists" :key="a.id">
      <SelectLine
        v-if="a.kind === 'list'"
        :id="`drill-${a.id}`"
        :model-value="standing(a, kept)"
        :label="a.name"
        :options="entries(a)"
        @update:model-value="put(a.id, $event!)"
      />
      <FieldLine v-else-if="a.kind === 'number'" :label="a.name" :for="`drill-${a.id}`">
        <InputNumber
          :model-value="Number(kept[a.id] ?? 1)"
          :input-id="`drill-${a.id}`"
          :min="1"
          :max="24"
          size="small"
          @update:model-value="put(a.id, $event ?? 1)"
        />
        of 24
      </FieldLine>
      <FieldLine v-else :label="a.name" :for="`drill-${a.id}`">
        <InputText
          :id="`drill-${a.id}`"
          :model-value="String(kept[a.id] ?? '')"
          size="small"
          :placeholder="chosen?.cell"
          @update:model-value="put(a.id, $event ?? '')"
        />
      </FieldLine>
    </template>
    <SelectLine id="drill-strings" v-model="on" label="Strings" :options="sets" />
    <TickBox
      v-for="a in switches"
      :key="a.id"
      :model-value="kept[a.id] === true"
      @update:model-value="put(a.id, $event!)"
      >{{ a.name }}</TickBox
    >
    <p class="do"><Button label="Lay it over the chords" @click="practise" /></p>
  </div>
</template>
