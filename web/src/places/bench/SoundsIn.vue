<script setup lang="ts">
/* In which key a chart sounds and in which it is read; a capo that is not on the neck can be put there. */
import { computed } from 'vue'
import Button from 'primevue/button'
import type { Chart, Instrument } from '../../api/client'
import { useCatalogue, usePlayer, useSavePlayer } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'

const props = defineProps<{ chart: Chart; instrument: Instrument }>()
const catalogue = useCatalogue()
const name = computed(() => catalogue.data.value?.readings.find((r) => r.id === props.chart.reading)?.name ?? '')
const player = usePlayer()
const save = useSavePlayer()
const missing = computed(() => !!props.chart.capo && props.instrument.capo !== props.chart.capo)
const put = () =>
  player.data.value &&
  save.mutate({ was: player.data.value, body: { ...player.data.value, capo: props.chart.capo ?? 0 } })
</script>

<template>
  <p v-if="chart.readIn" class="sounds">
    <span
      >sounds in <b><MusicText :symbol="chart.key" /></b
    ></span>
    <span
      >{{ chart.capo ? 'shapes' : 'read' }} in <b><MusicText :symbol="chart.readIn" /></b>, <MusicText :said="name"
    /></span>
    <Button
      v-if="missing"
      size="small"
      variant="outlined"
      :label="`Capo on ${chart.capo}`"
      :title="`put the capo there: the neck in hand has ${instrument.capo ? `one at fret ${instrument.capo}` : 'none'}`"
      @click="put"
    />
  </p>
</template>

<style scoped>
.sounds {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 0.8rem;
  margin: 0;
  color: var(--soft);
}

b {
  color: var(--ink);
}
</style>
