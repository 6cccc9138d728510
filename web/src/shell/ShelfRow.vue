<script setup lang="ts">
/* One of what is kept: its key, its name, what it is, and how it begins. */
import type { RouteLocationRaw } from 'vue-router'
import MusicText from '../music/MusicText.vue'

defineProps<{ to: RouteLocationRaw; of: string; name: string; about: string; begins?: string[] }>()
</script>

<template>
  <RouterLink class="row" :class="{ wide: begins }" :to="to">
    <span class="key"><MusicText :symbol="of" /></span>
    <span class="text">
      <b>{{ name }}</b>
      <span class="about">{{ about }}</span>
    </span>
    <span v-if="begins" class="begins"><MusicText v-for="(s, i) in begins" :key="i" :symbol="s" /></span>
  </RouterLink>
  <span class="do"><slot /></span>
</template>

<style scoped>
.row {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr);
  align-items: center;
  gap: 1rem;
  padding: 0.8rem 0.5rem;
  text-decoration: none;
}

.wide {
  grid-template-columns: 4.5rem minmax(0, 1.2fr) minmax(0, 1fr);
}

.key {
  font: 600 2rem/1 var(--font-display);
}

.text {
  display: grid;
  min-width: 0;
}

b {
  font-size: var(--text-l);
  font-weight: 600;
  overflow-wrap: anywhere;
}

.about {
  color: var(--soft);
}

.begins {
  display: flex;
  gap: 0.9rem;
  font: 600 1.125rem var(--font-display);
  overflow: hidden;
}

.do {
  display: flex;
}

@media (max-width: 51.25em) {
  .begins {
    display: none;
  }

  .row {
    grid-template-columns: 3.2rem minmax(0, 1fr);
  }
}

@media (max-width: 35em) {
  .row {
    flex-basis: 100%;
    padding-bottom: 0.2rem;
  }
}
</style>
