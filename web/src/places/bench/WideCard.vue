<script setup lang="ts">
/* A card as wide as the neck, in the place of the wave and the small cards: a title with its choices in one row, and what is
   found beneath. */
import PressButton from '../../shell/PressButton.vue'

defineProps<{ title: string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <section class="wide-card" :aria-label="title">
    <header>
      <h2>{{ title }} <slot name="beside" /></h2>
      <slot name="choices" />
      <PressButton class="close" aria-label="back to the wave and the cards" @click="emit('close')">
        <i class="pi pi-times" />
      </PressButton>
    </header>
    <slot />
  </section>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.35rem 0.75rem;
  margin-bottom: 0.35rem;
}

h2 {
  font-size: var(--text-l);
}

h2 :slotted(small) {
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
}

.close {
  margin-left: auto;
  width: var(--target);
  height: var(--target);
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
}

.wide-card :slotted(ul) {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(21rem, 100%), 1fr));
  gap: 0 1.25rem;
}
</style>
