<script setup lang="ts">
/* What may rest over a chord: one rule, and others over chords of the form. */
import { computed } from 'vue'
import Select from 'primevue/select'
import { useCatalogue } from '../api/queries'
import FieldRow from './FieldRow.vue'
import { restsOver, withRests } from './rests'

const rests = defineModel<string | undefined>()
defineProps<{ wrong?: string }>()
const catalogue = useCatalogue()
const rules = computed(() => catalogue.data.value?.rests ?? [])
const elsewhere = computed(() => [{ id: 'elsewhere', name: 'as elsewhere' }, ...rules.value])
const of = (place = '') => restsOver(rests.value ?? '', place)
const put = (rule: string, place = '') => (rests.value = withRests(rests.value ?? '', rule, place))
</script>

<template>
  <FieldRow label="May rest" for="rests" hint="how strictly lines are written and judged" :wrong="wrong">
    <Select
      :model-value="of()"
      input-id="rests"
      :options="rules"
      option-label="name"
      option-value="id"
      @update:model-value="put($event)"
    />
  </FieldRow>
  <FieldRow
    v-for="p in catalogue.data.value?.restPlaces"
    :key="p.id"
    class="place"
    :label="`over ${p.name}`"
    :for="`rests-${p.id}`"
  >
    <Select
      :model-value="of(p.id) || 'elsewhere'"
      :input-id="`rests-${p.id}`"
      size="small"
      :options="elsewhere"
      option-label="name"
      option-value="id"
      @update:model-value="put($event === 'elsewhere' ? '' : $event, p.id)"
    />
  </FieldRow>
</template>

<style scoped>
.place :deep(label) {
  padding-left: 1rem;
  color: var(--soft);
}
</style>
