<script setup lang="ts">
/* An exercise that is set: which, in which notes, over which chart, in which position. */
import { maxTempo, minTempo } from '../../../api/facts'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import type { AssignedExercise } from '../../../api/client'
import { useCatalogue } from '../../../api/queries'
import { asksOf, entries, standing, taskOf, type Asked } from '../../../making/drill'
import { everyString, stringSets, useDivision } from '../../../api/division'
import { stringsOf, written } from '../../../neck/region'
import DrillSelect from '../../../making/DrillSelect.vue'

const exercise = defineModel<AssignedExercise>({ required: true })
const props = defineProps<{ number: number; charts: string[] }>()
const emit = defineEmits<{ remove: [] }>()
const catalogue = useCatalogue()
function drill(id: string) {
  const name = catalogue.data.value?.drills.find((d) => d.id === id)?.name ?? id
  exercise.value = { ...exercise.value, title: name }
  task(id)
}
/* What else a teacher asks of it: where it starts, how it is led into, what it lands on, and on which strings. Another exercise is
   asked for what it has of that. */
const told = ['from', 'approach', 'land']
const asked = ref<Asked>({ ...(exercise.value.task as unknown as Asked) })
const lists = computed(() => {
  const all = catalogue.data.value
  return all ? asksOf(all, exercise.value.task.drill, asked.value).filter((a) => told.includes(a.id)) : []
})
function put(name: string, value: string) {
  asked.value = { ...asked.value, [name]: value }
  task(exercise.value.task.drill)
}
function task(drill: string, strings = exercise.value.task.strings) {
  const now = taskOf(catalogue.data.value!, drill, exercise.value.task.pace, asked.value)
  exercise.value = { ...exercise.value, task: { ...now, strings } }
}
const division = useDivision(ref('C'), ref(true))
const sets = computed(() => stringSets(division.data.value?.strings, written(exercise.value.task.strings ?? undefined)))
const on = computed({
  get: () => written(exercise.value.task.strings ?? undefined) ?? everyString,
  set: (set) => task(exercise.value.task.drill, set === everyString ? undefined : stringsOf(set)),
})
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
    <Select
      v-for="a in lists"
      :key="a.id"
      :model-value="standing(a, asked)"
      :options="entries(a).map((o) => ({ ...o, name: `${a.name}: ${o.name}` }))"
      option-label="name"
      option-value="id"
      :aria-label="of(a.name)"
      @update:model-value="put(a.id, $event)"
    />
    <Select v-model="on" :options="sets" option-label="name" option-value="id" :aria-label="of('strings')" />
    <Button icon="pi pi-trash" variant="text" :aria-label="`leave out exercise ${number}`" @click="emit('remove')" />
  </fieldset>
</template>

<style scoped src="./rows.css"></style>
