<script setup lang="ts">
/* A rest that is offered, and what is said when it hurts. Nothing here stops the music but the player. */
import { onScopeDispose, watch } from 'vue'
import { useBand } from '../band/useBand'
import PressButton from './PressButton.vue'
import { useCommands } from './useCommands'
import { useRest } from './useRest'

const band = useBand()
const rest = useRest()
let chorus = band.chorus
const clock = setInterval(() => {
  const over = band.chorus !== chorus
  chorus = band.chorus
  rest.second(band.playing, !band.playing || over)
}, 1000)
onScopeDispose(() => clearInterval(clock))
watch(
  () => band.playing,
  (now) => now && rest.shown === 'hurts' && rest.close(),
)
function hurts() {
  if (band.playing) band.stop()
  rest.hurts()
}
useCommands({ hurts })
</script>

<template>
  <p v-if="rest.shown" class="note" role="status">
    <template v-if="rest.shown === 'rest'">
      <span>{{ rest.minutes }} minutes without a rest: lay the guitar down for two minutes, shake out both hands.</span>
      <PressButton v-if="band.playing" @click="band.stop()">Stop the band</PressButton>
      <PressButton @click="hurts">It hurts</PressButton>
      <PressButton @click="rest.close()">Go on</PressButton>
    </template>
    <template v-else>
      <span
        >Stopped. Lay the guitar down and rest both hands; no more of this today if it comes back. If pain or numbness
        lasts, see a clinician.</span
      >
      <PressButton @click="rest.close()">Close</PressButton>
    </template>
  </p>
</template>

<style scoped>
.note {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.3rem 1rem;
  margin: 0;
  padding: 0.5rem 1.25rem;
  border-bottom: 2px solid var(--lit-rule);
  background: var(--lit);
}

.note button {
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
}
</style>
