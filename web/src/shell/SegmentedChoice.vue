<script setup lang="ts" generic="V extends string | number | boolean">
/* One of a few, side by side. */
import SelectButton from 'primevue/selectbutton'

const chosen = defineModel<V>()
defineProps<{ options: { id: V; name: string; title?: string }[]; label: string }>()
</script>

<template>
  <SelectButton
    v-model="chosen"
    unstyled
    class="segments"
    :options="options"
    option-label="name"
    option-value="id"
    :allow-empty="false"
    :aria-label="label"
  >
    <template #option="{ option }"
      ><span :title="option.title">{{ option.name }}</span></template
    >
  </SelectButton>
</template>
