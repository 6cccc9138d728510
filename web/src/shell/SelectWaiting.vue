<script setup lang="ts">
/* What stands for a choice until it is loaded: what is chosen, in its place. */
import { computed } from 'vue'

defineOptions({ inheritAttrs: false })
const {
  modelValue = undefined,
  options = [],
  optionLabel = '',
  optionValue = '',
  placeholder = '',
} = defineProps<{
  modelValue?: unknown
  options?: unknown[]
  optionLabel?: string
  optionValue?: string
  placeholder?: string
}>()
const of = (o: unknown, key?: string) => (key ? (o as Record<string, unknown>)[key] : o)
const text = computed(() => {
  const chosen = options.find((o) => of(o, optionValue) === modelValue)
  return chosen === undefined ? placeholder : `${of(chosen, optionLabel) as string}`
})
</script>

<template>
  <span class="select-waiting" :class="$attrs.class" aria-hidden="true">{{ text }}</span>
</template>

<style scoped>
.select-waiting {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 2.75rem 0 0.75rem;
  border: 1px solid var(--ghost);
  border-radius: 6px;
  white-space: nowrap;
}
</style>
