<script setup lang="ts">
/* All places on the neck where a lick can be had over a chord: where it was written first, then the nearest. */
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import { answer, api, type LineBody } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import PressButton from '../../shell/PressButton.vue'

const props = defineProps<{
  id: number
  chord: string
  follow: boolean
  version: string
  heard: (title: string) => boolean
}>()
const emit = defineEmits<{ hear: [title: string, line: LineBody] }>()
const asked = computed(() => ({ chord: props.chord, follow: props.follow }))
const places = useQuery({
  queryKey: ['ways', 'places', computed(() => props.id), asked, computed(() => props.version)],
  queryFn: () => answer(api.GET('/api/licks/{id}/places', { params: { path: { id: props.id }, query: asked.value } })),
  placeholderData: (before) => before,
})
const chosen = ref(0)
watch(asked, () => (chosen.value = 0))
const now = computed(() => places.data.value?.[chosen.value])
const frets = (p: { low: number; high: number }) =>
  p.high === 0 ? 'open strings' : p.low === p.high ? `fret ${p.low}` : `frets ${p.low} to ${p.high}`
const title = computed(() => `${props.chord}, ${now.value ? frets(now.value) : ''}`)
</script>

<template>
  <section v-if="places.data.value?.length" class="spots" aria-label="all places">
    <h2>
      All places over <MusicText :symbol="chord" />
      <Button
        v-if="now"
        :icon="heard(title) ? 'pi pi-stop' : 'pi pi-volume-up'"
        variant="text"
        :aria-label="`hear it at ${frets(now)}`"
        @click="emit('hear', title, now.line)"
      />
    </h2>
    <ol>
      <li v-for="(p, i) in places.data.value" :key="i">
        <PressButton class="spot" :aria-pressed="i === chosen" @click="chosen = i">
          <b>{{ frets(p) }}</b>
          <small
            >{{ p.shape ? 'its own shape, ' : ''
            }}{{ p.travel ? `${Math.round(p.travel)} mm away` : 'where it was written' }}</small
          >
        </PressButton>
      </li>
    </ol>
    <StaffDrawing v-if="now" :score="now.score" fingers />
  </section>
</template>

<style scoped>
.spots {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
  margin-top: 1rem;
}

h2 {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  font-size: var(--text-l);
}

ol {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0;
  padding: 0;
  list-style: none;
}

.spot {
  display: grid;
  padding: 0.35rem 0.7rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: var(--raised);
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.spot[aria-pressed='true'] {
  border-color: var(--lit-rule);
  background: var(--lit);
}

small {
  color: var(--soft);
  font-size: var(--text-s);
}
</style>
