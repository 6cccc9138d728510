<script setup lang="ts">
/* What is to be reached: of what, how well, how fast, how often. */
import { maxTempo, minTempo } from '../../../api/facts'
import { engrave } from '../../../music/text'
import { computed } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import type { AimBody } from '../../../api/client'
import { useCatalogue } from '../../../api/queries'
import { turned } from './draft'

const aim = defineModel<AimBody>({ required: true })
const props = defineProps<{
  number: number
  kinds: { id: string; name: string }[]
  names: { chart: string[]; line: string[]; exercise: string[] }
}>()
const emit = defineEmits<{ remove: [] }>()
const catalogue = useCatalogue()
const of = (what: string) => `${what} of aim ${props.number}`
const numbered = (names: string[]) => names.map((name, i) => ({ name, id: i + 1 }))
const take = computed(() => aim.value.kind !== 'calls' && aim.value.kind !== 'minutes')
const tonics = computed(() => (catalogue.data.value?.tonics ?? []).map((id) => ({ id, name: engrave(id) })))
const degrees = ['root', 'third', 'fifth', 'seventh']
</script>

<template>
  <fieldset class="set">
    <legend>Aim {{ number }}</legend>
    <Select
      :model-value="aim.kind"
      :options="kinds"
      option-label="name"
      option-value="id"
      :aria-label="of('kind')"
      @update:model-value="aim = turned(aim, $event)"
    />
    <template v-for="what in ['chart', 'line', 'exercise'] as const" :key="what">
      <Select
        v-if="aim.kind === (what === 'chart' ? 'changes' : what)"
        v-model="aim[what]"
        :options="numbered(names[what])"
        option-label="name"
        option-value="id"
        :aria-label="of(what)"
      />
    </template>
    <Select
      v-if="aim.kind === 'changes'"
      v-model="aim.mode"
      :options="catalogue.data.value?.modes ?? []"
      option-label="name"
      option-value="id"
      :aria-label="of('way')"
    />
    <template v-if="aim.kind === 'calls'">
      <Select v-model="aim.key" :options="tonics" option-label="name" option-value="id" :aria-label="of('key')" />
      <Select v-model="aim.degree" :options="degrees" :aria-label="of('degree')" />
    </template>
    <InputNumber v-if="take" v-model="aim.percent" :min="1" :max="100" suffix=" %" :aria-label="of('percent')" />
    <InputNumber
      v-if="take"
      v-model="aim.tempo"
      :min="minTempo"
      :max="maxTempo"
      placeholder="any tempo"
      :aria-label="of('tempo')"
    />
    <InputNumber
      v-model="aim.times"
      :min="1"
      :max="aim.kind === 'minutes' ? 6000 : 100"
      :suffix="aim.kind === 'minutes' ? ' minutes' : ' in a row'"
      :aria-label="of('times')"
    />
    <InputText v-model="aim.words" class="words" maxlength="400" placeholder="a word on it" :aria-label="of('words')" />
    <Button icon="pi pi-trash" variant="text" :aria-label="`leave out aim ${number}`" @click="emit('remove')" />
  </fieldset>
</template>

<style scoped src="./rows.css"></style>
