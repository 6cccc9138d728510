<script setup lang="ts">
/* Our band plays the chart, or a recording of it does. */
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api } from '../api/client'
import { everyRow } from '../api/pages'
import { useBand } from '../band/useBand'
import { Select } from '../shell/parts'
import { useInBand } from './useInBand'

const band = useBand()
const inBand = useInBand()
const rows = useQuery({
  queryKey: ['recordings', 'all'],
  queryFn: (q) => everyRow((query) => api.GET('/api/recordings', { params: { query } }), q),
})
const of = computed(() => (rows.data.value ?? []).filter((r) => r.chart === band.chart?.id && r.bytes))
const options = computed(() => [{ id: 0, title: 'our band' }, ...of.value])
const who = computed({ get: () => band.record?.id ?? 0, set: (id) => void inBand.choose(id) })
</script>

<template>
  <div v-if="of.length || band.record" class="row">
    <label for="who-plays">The chart is played by</label>
    <Select
      v-model="who"
      :options="options"
      :loading="inBand.opening.value"
      option-label="title"
      option-value="id"
      size="small"
      input-id="who-plays"
    />
    <small v-if="inBand.trouble.value" role="alert">{{ inBand.trouble.value }}</small>
    <small v-else-if="band.record"
      >{{ band.record.much }}, at any tempo, brought in tune. Play with headphones: through loudspeakers the ear may
      take its guitar for yours.</small
    >
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 11rem);
  align-items: center;
  gap: 0.2rem 1rem;
  min-height: var(--target);
}

small {
  grid-column: 1 / -1;
  color: var(--soft);
  line-height: 1.2;
}

[role='alert'] {
  color: var(--danger);
}
</style>
