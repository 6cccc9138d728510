<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { helpOf } from './placeHelp'

const route = useRoute()
const here = computed(() => helpOf(route.name, route.query.do))
</script>

<template>
  <section v-if="here">
    <h2>{{ here.name }}</h2>
    <ol>
      <li v-for="s in here.steps" :key="s">{{ s }}</li>
    </ol>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--text-l);
  margin: 1rem 0 0.4rem;
}

ol {
  display: grid;
  gap: 0.3rem;
  margin: 0;
  padding-left: 1.4rem;
  list-style: decimal;
}
</style>
