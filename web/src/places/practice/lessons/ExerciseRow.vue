<script setup lang="ts">
/* An exercise that is set: which, in which notes, over which chart, in which position. */
import { maxTempo, minTempo } from '../../../api/facts'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import type { AssignedExercise } from '../../../api/client'
import { useCatalogue } from '../../../api/queries'
import DrillSelect from '../../../making/DrillSelect.vue'

const exercise = defineModel<AssignedExercise>({ required: true })
const props = defineProps<{ number: number; charts: string[] }>()
const emit = defineEmits<{ remove: [] }>()
const catalogue = useCatalogue()
function drill(id: string) {
  const name = catalogue.data.value?.drills.find((d) => d.id === id)?.name ?? id
  exercise.value = { ...exercise.value, title: name, task: { ...exercise.value.task, drill: id } }
}
const of = (what: string) => `${what} of exercise ${props.number}`
</script>

<template>
  <fieldset class="set">
    <legend>Exercise {{ number }}</legend>
    <DrillSelect :model-value="exercise.task.drill" :label="of('kind')" @update:model-value="drill" />
    <Select
      v-model="exercise.task.pace"
      :options="catalogue.data.value?.paces ?? []"
      option-label="name"
      option-value="id"
      :aria-label="of('pace')"
    />
    <Select
      v-model="exercise.chart"
      :options="charts.map((name, i) => ({ name: `over ${name}`, id: i + 1 }))"
      option-label="name"
      option-value="id"
      :aria-label="of('chart')"
    />
    <Select
      v-model="exercise.position"
      :options="[1, 2, 3, 4, 5].map((n) => ({ name: `place ${n} of five up the neck`, id: n }))"
      option-label="name"
      option-value="id"
      :aria-label="of('position')"
    />
    <InputNumber
      v-model="exercise.tempo"
      :min="minTempo"
      :max="maxTempo"
      placeholder="tempo"
      :aria-label="of('tempo')"
    />
    <Button icon="pi pi-trash" variant="text" :aria-label="`leave out exercise ${number}`" @click="emit('remove')" />
  </fieldset>
</template>

<style scoped src="./rows.css"></style>
