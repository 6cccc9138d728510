<script setup lang="ts">
/* The title of what is in the hand, changed where it stands. An empty one is no title. */
defineProps<{ title: string; label: string; longest?: number }>()
const emit = defineEmits<{ change: [title: string] }>()
function typed(e: Event) {
  const text = (e.target as HTMLInputElement).value
  if (text.trim()) emit('change', text)
}
</script>

<template>
  <h1>
    <input class="name" :value="title" :maxlength="longest ?? 120" :aria-label="label" @input="typed" />
  </h1>
</template>

<style scoped>
.name {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  field-sizing: content;
  min-width: 8rem;
  max-width: 24rem;
  padding: 0.1rem 0;
  text-overflow: ellipsis;
}

.name:hover,
.name:focus {
  border-color: var(--rule);
}
</style>
