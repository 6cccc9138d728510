<script setup lang="ts" generic="T extends { id: number }">
/* A place that lists what is kept: its name, what is sought, what can be begun, and a row for each. */
import { computed, useTemplateRef } from 'vue'
import InputText from 'primevue/inputtext'
import type { Found } from '../api/found'
import { useGrowing } from './useGrowing'

const sought = defineModel<string>({ required: true })
const { found } = defineProps<{
  title: string
  /** what one of them is called, and what is searched */
  one: string
  by: string
  found: Found<T>
}>()
const foot = useTemplateRef<HTMLElement>('foot')
const rows = computed(() => found.rows ?? [])
const shown = useGrowing(rows, foot, sought, () => found.more())
</script>

<template>
  <div class="shelf">
    <header>
      <h1>{{ title }}</h1>
      <InputText v-if="!found.empty" v-model="sought" :placeholder="`find by ${by}`" :aria-label="`find a ${one}`" />
      <slot name="begin" />
    </header>
    <ul v-if="!found.empty">
      <li v-for="item in shown" :key="item.id"><slot :item="item" /></li>
    </ul>
    <slot v-else name="empty" />
    <p v-if="shown.length < found.total" ref="foot" class="none">{{ shown.length }} of {{ found.total }}</p>
    <p v-if="!found.empty && !found.total" class="none">No {{ one }} has “{{ sought }}” in its {{ by }}.</p>
    <slot name="dialogs" />
  </div>
</template>

<style scoped>
.shelf {
  padding: 1rem 1.25rem 2rem;
}

header {
  display: flex;
  align-items: center;
  gap: 1rem;
  margin-bottom: 1rem;
  flex-wrap: wrap;
}

h1 {
  font-size: 2rem;
  flex: 1;
}

header :deep(input) {
  width: 18rem;
}

li {
  display: flex;
  align-items: center;
  border-top: 1px solid var(--rule);
}

li:last-child {
  border-bottom: 1px solid var(--rule);
}

li:hover {
  background: var(--raised);
}

.none {
  color: var(--soft);
}

/* What is done to a row stands under its name where both do not fit beside each other. */
@media (max-width: 35em) {
  li {
    flex-wrap: wrap;
    justify-content: end;
  }
}
</style>
