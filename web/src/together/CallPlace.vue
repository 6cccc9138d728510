<script setup lang="ts">
/* What the laptop asks for, in letters to be read from the music stand. */
import { useTitle } from '@vueuse/core'
import Button from 'primevue/button'
import MusicText from '../music/MusicText.vue'
import EmptyPlace from '../shell/EmptyPlace.vue'
import { useSummary } from '../shell/summary'
import { asked } from './asked'

useTitle('Call · Undaris')
useSummary({ whole: () => asked.value?.spoken ?? '' })
</script>

<template>
  <section v-if="asked" class="call" aria-live="polite">
    <h1><MusicText :symbol="asked.big" /></h1>
    <p><MusicText :said="asked.words" /></p>
  </section>
  <EmptyPlace v-else title="No call is asked now" text="Calls that the laptop asks are shown here in large letters.">
    <Button as="router-link" to="/bench" label="Bench" />
  </EmptyPlace>
</template>

<style scoped>
.call {
  display: grid;
  align-content: center;
  gap: 1rem;
  padding: 1.5rem;
  min-height: 100%;
}

h1 {
  font-size: clamp(5rem, 24vw, 16rem);
  line-height: 1;
}

p {
  font: 600 clamp(2rem, 8vw, 5rem) / 1.15 var(--font-display);
}
</style>
