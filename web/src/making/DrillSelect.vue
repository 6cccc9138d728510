<script setup lang="ts">
/* An exercise among all: by its kind, or by any word that players have for it. What it does is told before it is taken, and
   whoever shows one can show the one that is looked at. */
import { computed, ref } from 'vue'
import Select from 'primevue/select'
import { useCatalogue } from '../api/queries'

const drill = defineModel<string>({ required: true })
defineProps<{ inputId?: string; label?: string }>()
defineSlots<{ look?(props: { drill: string }): unknown }>()
const catalogue = useCatalogue()
/** Under the pointer, as long as the list is open. */
const looked = ref('')
const groups = computed(() =>
  (catalogue.data.value?.drillGroups ?? []).map((g) => ({
    name: g.name,
    drills: catalogue.data.value!.drills.filter((d) => d.group === g.id),
  })),
)
</script>

<template>
  <Select
    v-model="drill"
    :input-id="inputId"
    :options="groups"
    option-group-label="name"
    option-group-children="drills"
    option-label="name"
    option-value="id"
    filter
    :filter-fields="['name', 'about', 'words']"
    auto-filter-focus
    reset-filter-on-hide
    filter-placeholder="by any name: guide tones, half-diminished …"
    empty-filter-message="No exercise is called so"
    :aria-label="label"
    scroll-height="18rem"
    @hide="looked = ''"
  >
    <template #option="{ option }">
      <span class="drill" @mouseenter="looked = option.id">
        {{ option.name }}
        <small>{{ option.about }}</small>
      </span>
    </template>
    <template v-if="$slots.look" #footer>
      <div class="look"><slot name="look" :drill="looked || drill" /></div>
    </template>
  </Select>
</template>

<style scoped>
.drill {
  display: grid;
  max-width: 24rem;
  white-space: normal;
}

.look {
  max-width: 24rem;
  padding: 0 0.75rem;
}

small {
  font-size: var(--text-s);
  opacity: 0.75;
}
</style>
