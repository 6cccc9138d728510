<script setup lang="ts">
/* The ways in, each by its name: over the chart in hand, or the one opened last. */
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import Button from 'primevue/button'
import { useCharts } from '../api/queries'
import { useWay } from './useWay'
import { wayIds, ways } from './ways'

const emit = defineEmits<{ begun: [] }>()
const way = useWay()
const route = useRoute()
const charts = useCharts()
const of = computed(() => {
  const here = ['bench', 'stand', 'atlas', 'practice'].includes(String(route.name)) ? Number(route.params.id) : 0
  return here || charts.data.value?.[0]?.id || 0
})
</script>

<template>
  <p class="ways">
    <span>New here? Three short ways in:</span>
    <Button
      v-for="id in wayIds"
      :key="id"
      :label="ways[id].name"
      :icon="way.kept.done.includes(id) ? 'pi pi-check' : undefined"
      :title="ways[id].about"
      variant="outlined"
      :disabled="!of"
      @click="(way.begin(id, of), emit('begun'))"
    />
  </p>
</template>

<style scoped>
.ways {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.4rem 0.75rem;
}
</style>
