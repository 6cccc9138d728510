<script setup lang="ts">
/* A teacher sets an assignment: words, charts, licks, lines, exercises, and what is to be reached. */
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import MultiSelect from 'primevue/multiselect'
import Textarea from 'primevue/textarea'
import { useLicks, useLines } from '../../../api/kept'
import { useLessonChanges } from '../../../api/lessons'
import { useCatalogue, useCharts } from '../../../api/queries'
import FieldRow from '../../../shell/FieldRow.vue'
import FormDialog from '../../../shell/FormDialog.vue'
import AimRow from './AimRow.vue'
import ExerciseRow from './ExerciseRow.vue'
import OwnName from './OwnName.vue'
import { empty, possible, said, turned, without } from './draft'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ made: [id: number] }>()
const changes = useLessonChanges()
const charts = useCharts()
const licks = useLicks()
const lines = useLines()
const catalogue = useCatalogue()
const draft = ref(empty())
const trouble = ref('')
watch(open, (o) => o && ((draft.value = empty()), (trouble.value = '')))
const title = (list: { id: number; title: string }[] | undefined, id: number) => list?.find((t) => t.id === id)?.title
const names = computed(() => ({
  chart: draft.value.charts.map((id) => title(charts.data.value, id) ?? ''),
  line: draft.value.lines.map((id) => title(lines.data.value, id) ?? ''),
  exercise: draft.value.exercises.map((e) => e.title),
}))
/* What was chosen before keeps its number, so that aims go on speaking of it. */
function choose(list: 'charts' | 'lines', ids: number[]) {
  for (const id of draft.value[list].filter((id) => !ids.includes(id)))
    draft.value = without(draft.value, list, draft.value[list].indexOf(id) + 1)
  draft.value[list] = [...draft.value[list], ...ids.filter((id) => !draft.value[list].includes(id))]
}
function exercise() {
  const drill = catalogue.data.value!.drills[0]!
  const pace = catalogue.data.value!.paces.find((p) => p.id === 'eighths') ?? catalogue.data.value!.paces[0]!
  draft.value.exercises.push({ title: drill.name, chart: 1, position: 1, task: { drill: drill.id, pace: pace.id } })
}
const kinds = computed(() => possible(draft.value, catalogue.data.value?.aims ?? []))
/** The key of the first chart: calls are in it, unless another is said. */
const key = computed(() => charts.data.value?.find((c) => c.id === draft.value.charts[0])?.key)
const aim = () => draft.value.aims.push(turned({ kind: '' }, kinds.value[0]!, key.value))
async function make() {
  trouble.value = ''
  try {
    const made = await changes.make.mutateAsync(said(draft.value))
    open.value = false
    emit('made', made.id)
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <FormDialog v-model="open" header="An assignment" action="Set it" :trouble="trouble" width="56rem" @done="make">
    <FieldRow label="Title" for="lesson-title">
      <InputText id="lesson-title" v-model="draft.title" maxlength="120" autofocus />
    </FieldRow>
    <OwnName to="a pupil" />
    <FieldRow label="Words" for="lesson-words" hint="what to look out for">
      <Textarea id="lesson-words" v-model="draft.words" rows="3" maxlength="4000" />
    </FieldRow>
    <FieldRow label="Charts" for="lesson-charts">
      <MultiSelect
        input-id="lesson-charts"
        :model-value="draft.charts"
        :options="charts.data.value ?? []"
        option-label="title"
        option-value="id"
        filter
        reset-filter-on-hide
        placeholder="none"
        @update:model-value="choose('charts', $event)"
      />
    </FieldRow>
    <FieldRow label="Licks" for="lesson-licks">
      <MultiSelect
        v-model="draft.licks"
        input-id="lesson-licks"
        :options="licks.data.value ?? []"
        option-label="title"
        option-value="id"
        filter
        reset-filter-on-hide
        placeholder="none"
      />
    </FieldRow>
    <FieldRow label="Lines" for="lesson-lines">
      <MultiSelect
        input-id="lesson-lines"
        :model-value="draft.lines"
        :options="lines.data.value ?? []"
        option-label="title"
        option-value="id"
        filter
        reset-filter-on-hide
        placeholder="none"
        @update:model-value="choose('lines', $event)"
      />
    </FieldRow>
    <ExerciseRow
      v-for="(_, i) in draft.exercises"
      :key="`exercise ${i}`"
      v-model="draft.exercises[i]!"
      :number="i + 1"
      :charts="names.chart"
      @remove="draft = without(draft, 'exercises', i + 1)"
    />
    <AimRow
      v-for="(_, i) in draft.aims"
      :key="`aim ${i}`"
      v-model="draft.aims[i]!"
      :music-key="key"
      :number="i + 1"
      :kinds="kinds"
      :names="names"
      @remove="draft.aims.splice(i, 1)"
    />
    <template #beside>
      <Button
        label="An exercise"
        icon="pi pi-plus"
        variant="outlined"
        :disabled="!draft.charts.length"
        title="written anew on the pupil's own instrument, over one of the charts"
        @click="exercise"
      />
      <Button label="An aim" icon="pi pi-plus" variant="outlined" title="what is to be reached" @click="aim" />
    </template>
  </FormDialog>
</template>

<style scoped>
.p-multiselect {
  width: 100%;
}
</style>
