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
import { turned, type AimKind } from './draft'

const aim = defineModel<AimBody>({ required: true })
const props = defineProps<{
  number: number
  kinds: AimKind[]
  names: { chart: string[]; line: string[]; exercise: string[] }
  /** that calls begin in */
  musicKey?: string
}>()
const emit = defineEmits<{ remove: [] }>()
const catalogue = useCatalogue()
const of = (what: string) => `${what} of aim ${props.number}`
const numbered = (names: string[]) => names.map((name, i) => ({ name, id: i + 1 }))
const kind = computed(() => catalogue.data.value?.aims.find((k) => k.id === aim.value.kind))
const asks = (what: AimKind['asks'][number]) => kind.value?.asks.includes(what)
const tonics = computed(() => (catalogue.data.value?.tonics ?? []).map((id) => ({ id, name: engrave(id) })))
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
      @update:model-value="
        aim = turned(
          aim,
          kinds.find((k) => k.id === $event)!,
          musicKey,
        )
      "
    />
    <Select
      v-if="kind?.of"
      v-model="aim[kind.of]"
      :options="numbered(names[kind.of])"
      option-label="name"
      option-value="id"
      :aria-label="of(kind.of)"
    />
    <Select
      v-if="asks('mode')"
      v-model="aim.mode"
      :options="catalogue.data.value?.modes ?? []"
      option-label="name"
      option-value="id"
      :aria-label="of('way')"
    />
    <Select
      v-if="asks('key')"
      v-model="aim.key"
      :options="tonics"
      option-label="name"
      option-value="id"
      :aria-label="of('key')"
    />
    <Select
      v-if="asks('degree')"
      v-model="aim.degree"
      :options="catalogue.data.value?.degrees ?? []"
      :aria-label="of('degree')"
    />
    <InputNumber
      v-if="asks('percent')"
      v-model="aim.percent"
      :min="1"
      :max="100"
      suffix=" %"
      :aria-label="of('percent')"
    />
    <InputNumber
      v-if="asks('tempo')"
      v-model="aim.tempo"
      :min="minTempo"
      :max="maxTempo"
      placeholder="any tempo"
      :aria-label="of('tempo')"
    />
    <InputNumber v-model="aim.times" :min="1" :max="kind?.most" :suffix="` ${kind?.unit}`" :aria-label="of('times')" />
    <InputText v-model="aim.words" class="words" maxlength="400" placeholder="a word on it" :aria-label="of('words')" />
    <Button icon="pi pi-trash" variant="text" :aria-label="`leave out aim ${number}`" @click="emit('remove')" />
  </fieldset>
</template>

<style scoped src="./rows.css"></style>
