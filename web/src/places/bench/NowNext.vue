<script setup lang="ts">
import type { ChartMap } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import type { Bench } from './useBench'

const props = defineProps<{ map: ChartMap; step: Bench['step']['value']; coming: Bench['coming']['value'] }>()
const symbol = (chord: number) => props.map.chords[chord]?.symbol ?? ''
const away = (beats: number) => {
  const bars = beats / props.map.chart.beats
  if (bars === 1) return 'in a bar'
  return Number.isInteger(bars) ? `in ${bars} bars` : `in ${beats} beats`
}
</script>

<template>
  <div class="ahead" role="status" aria-live="polite">
    <p class="now"><MusicText :text="symbol(step?.chord ?? 0)" /></p>
    <p v-if="coming[0]" class="next">
      <span class="to">to</span>
      <b><MusicText :text="symbol(coming[0].chord)" /></b>
      <span class="when">{{ away(coming[0].beats) }}, bar {{ coming[0].bar + 1 }}</span>
    </p>
    <p v-else class="next"><span class="to">one chord, no change to come</span></p>
    <p v-if="coming[1]" class="later">
      then
      <template v-for="(c, i) in coming.slice(1)" :key="i"
        >{{ i ? ', ' : '' }}<b><MusicText :text="symbol(c.chord)" /></b> in bar {{ c.bar + 1 }}</template
      >
    </p>
  </div>
</template>

<style scoped>
.ahead {
  display: grid;
  align-content: start;
  gap: 0.15rem;
}

.now {
  font: 600 var(--text-xxl) / 1 var(--font-display);
}

.next {
  display: flex;
  align-items: baseline;
  gap: 0.6rem;
  flex-wrap: wrap;
}

.next b {
  font: 600 2.25rem/1.1 var(--font-display);
}

.to,
.when,
.later {
  color: var(--soft);
}

.later b {
  color: var(--ink);
  font-weight: 600;
}
</style>
