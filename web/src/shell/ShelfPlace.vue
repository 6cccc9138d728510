<script setup lang="ts" generic="T extends { id: number }">
/* A place that lists what is kept: its name, what is sought, what can be begun, and a row for each. */
import { computed, useTemplateRef } from 'vue'
import InputText from 'primevue/inputtext'
import { plain } from '../music/text'
import { useGrowing } from './useGrowing'

const sought = defineModel<string>({ default: '' })
const props = defineProps<{
  title: string
  /** what one of them is called, and what is searched */
  one: string
  by: string
  all: T[]
  words: (item: T) => string
}>()
const found = computed(() => {
  const wanted = plain(sought.value).toLowerCase()
  return props.all.filter((item) => read(item).includes(wanted))
})
/* What a row answers to is read once. */
const index = new WeakMap<T, string>()
function read(item: T): string {
  const known = index.get(item) ?? props.words(item).toLowerCase()
  index.set(item, known)
  return known
}
const foot = useTemplateRef<HTMLElement>('foot')
const shown = useGrowing(found, foot, sought)
</script>

<template>
  <div class="shelf">
    <header>
      <h1>{{ title }}</h1>
      <InputText v-if="all.length" v-model="sought" :placeholder="`find by ${by}`" :aria-label="`find a ${one}`" />
      <slot name="begin" />
    </header>
    <ul v-if="all.length">
      <li v-for="item in shown" :key="item.id"><slot :item="item" /></li>
    </ul>
    <slot v-else name="empty" />
    <p v-if="shown.length < found.length" ref="foot" class="none">{{ shown.length }} of {{ found.length }}</p>
    <p v-if="all.length && !found.length" class="none">No {{ one }} has “{{ sought }}” in its {{ by }}.</p>
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
</style>
