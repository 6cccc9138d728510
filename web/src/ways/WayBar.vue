<script setup lang="ts">
/* The step of the way in hand: one sentence, and what to press. */
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import Button from 'primevue/button'
import MusicText from '../music/MusicText.vue'
import WaysIn from './WaysIn.vue'
import { useWay } from './useWay'

const way = useWay()
const route = useRoute()
const router = useRouter()
/** Who opened the demo is shown the ways in, once. */
const offered = computed(() => route.query.ways === 'yes' && !way.way)
const close = () => (way.way ? way.leave() : void router.replace({ query: { ...route.query, ways: undefined } }))
const says = computed(() => way.aim && way.step?.says(way.aim))
</script>

<template>
  <section v-if="way.way || offered" class="way-in" aria-label="a way in">
    <template v-if="way.way">
      <b>{{ way.way.name }}</b>
      <p role="status"><MusicText v-if="says" :said="says" /></p>
      <Button
        v-for="(b, i) in way.step?.buttons"
        :key="b.name"
        :label="b.name"
        :variant="i || way.step?.waits ? 'outlined' : undefined"
        :disabled="!way.aim"
        @click="way.do(b.does)"
      />
      <small>{{ way.kept.step + 1 }} of {{ way.way.steps.length }}</small>
    </template>
    <WaysIn v-else />
    <Button icon="pi pi-times" variant="text" aria-label="leave it; Help has it again" @click="close" />
  </section>
</template>

<style scoped>
.way-in {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.3rem 0.9rem;
  margin: 0.5rem 1.25rem 0;
  padding: 0.3rem 0.4rem 0.3rem 0.9rem;
  border-left: 4px solid var(--third);
  background: var(--raised);
}

b {
  font: 600 var(--text-l) var(--font-display);
}

p {
  flex: 1 1 18rem;
  min-width: 0;
  font-size: var(--text-l);
  line-height: 1.25;
}

small {
  color: var(--soft);
}
</style>
