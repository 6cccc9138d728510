<script setup lang="ts" generic="V extends string | number">
/* A labelled choice among names. */
import FieldRow from './FieldRow.vue'
import { Select } from './parts'

const value = defineModel<V>({ required: true })
defineProps<{
  label: string
  id: string
  options: { name: string; value: V }[]
  filter?: boolean
  first?: boolean
  disabled?: boolean
}>()
</script>

<template>
  <FieldRow :label="label" :for="id">
    <Select
      v-model="value"
      :input-id="id"
      :options="options"
      option-label="name"
      option-value="value"
      :filter="filter"
      reset-filter-on-hide
      :disabled="disabled"
      :pt="{ label: { autofocus: first || undefined } }"
    />
  </FieldRow>
</template>
