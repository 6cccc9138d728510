<script setup lang="ts">
/* What a pupil gave back, beside the aims: in words, in minutes, and takes to be heard. */
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import Button from 'primevue/button'
import type { LessonResults } from '../../../api/client'
import { playing } from '../../../api/kept'
import { useBand } from '../../../band/useBand'
import MusicText from '../../../music/MusicText.vue'

const props = defineProps<{ results: LessonResults }>()
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' })
const reached = computed(() => props.results.aims.filter((a) => a.reached).length)
const band = useBand()
const sounding = ref(-1)
watch(
  () => band.playing,
  (now) => !now && (sounding.value = -1),
)
async function hear(i: number) {
  if (sounding.value === i) return band.stop()
  const t = props.results.takes[i]!
  await band.hear({
    title: t.title,
    beats: t.line.beats,
    bars: t.bars,
    tempo: t.tempo,
    cues: [],
    load: playing(t.line),
  })
  band.setTempo(t.tempo)
  sounding.value = i
}
onBeforeUnmount(() => sounding.value >= 0 && band.stop())
</script>

<template>
  <section class="results" :aria-label="`results of ${results.pupil}`">
    <h3>
      {{ results.pupil }}
      <small
        >{{ day.format(new Date(results.returned)) }} · {{ reached }} of {{ results.aims.length }} reached ·
        {{ Math.round(results.minutes) }} {{ Math.round(results.minutes) === 1 ? 'minute' : 'minutes' }},
        {{ results.played.length === 1 ? 'once' : `${results.played.length} times` }} played</small
      >
    </h3>
    <p v-if="results.words" class="words">“{{ results.words }}”</p>
    <ul v-if="results.takes.length" aria-label="takes">
      <li v-for="(t, i) in results.takes" :key="i">
        <Button
          :icon="sounding === i ? 'pi pi-stop' : 'pi pi-volume-up'"
          variant="text"
          :aria-label="`hear ${t.title}`"
          @click="hear(i)"
        />
        <p>
          {{ t.title }}
          <small>{{ t.landed }} of {{ t.changes }} changes at {{ t.tempo }}. <MusicText :said="`${t.good}.`" /></small>
        </p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.results {
  border-left: 3px solid var(--third);
  padding: 0.25rem 0 0.25rem 1rem;
}

h3 {
  font-size: var(--text-l);
}

small {
  color: var(--soft);
  font-weight: 400;
}

.words {
  white-space: pre-line;
}

ul {
  list-style: none;
  margin: 0.5rem 0 0;
  padding: 0;
}

li {
  padding: 0.3rem 0;
}

ul li {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}

ul small {
  display: block;
}
</style>
