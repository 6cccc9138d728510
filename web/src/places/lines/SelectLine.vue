<script setup lang="ts" generic="V extends string | number">
/* A short label and a choice on one line. */
import Select from 'primevue/select'
import FieldLine from './FieldLine.vue'

const value = defineModel<V>()
defineProps<{ label: string; id: string; options: { id: V; name: string }[]; filter?: boolean }>()
</script>

<template>
  <FieldLine :label="label" :for="id">
    <Select
      v-model="value"
      :input-id="id"
      :options="options"
      option-label="name"
      option-value="id"
      :filter="filter"
      reset-filter-on-hide
    />
  </FieldLine>
</template>
