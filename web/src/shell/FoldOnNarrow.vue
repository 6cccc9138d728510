<script setup lang="ts">
/* Folded away until it is asked for where the screen is narrow; elsewhere it is simply there. */
import { ref } from 'vue'
import PressButton from './PressButton.vue'

defineProps<{ name: string }>()
const open = ref(false)
</script>

<template>
  <div class="fold" :class="{ open }">
    <PressButton class="head" :aria-expanded="open" @click="open = !open"
      ><slot name="head">{{ name }}</slot></PressButton
    >
    <slot />
  </div>
</template>

<style scoped>
.fold {
  display: contents;
}

.head {
  display: none;
}

@media (max-width: 43.75em) {
  .fold {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    border-top: 1px solid var(--rule);
  }

  .head {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    min-height: var(--target);
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    font: 600 var(--text-l) var(--font-display);
    text-align: left;
    cursor: pointer;
  }

  .head::before {
    content: '▸';
    font-size: 0.8em;
    color: var(--soft);
  }

  .open > .head::before {
    content: '▾';
  }

  .fold:not(.open) > :slotted(:not(.head)) {
    display: none;
  }
}
</style>
