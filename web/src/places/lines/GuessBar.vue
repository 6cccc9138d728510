<script setup lang="ts">
/* How many notes of an imported line were guessed, and how they are marked. */
import { computed } from 'vue'
import { guessed } from '../../document/guesses'
import { confirm } from '../../document/notes'
import type { LineState } from './useLine'
import PressButton from '../../shell/PressButton.vue'

const props = defineProps<{ state: LineState }>()
const guesses = computed(() => props.state.notes.value.filter(guessed))
const moved = computed(() => guesses.value.some((n) => n.rhythmGuessed || n.bendGuessed))
const joined = computed(() => guesses.value.some((n) => n.joinGuessed))
const placed = computed(() => guesses.value.some((n) => n.placeGuessed))
</script>

<template>
  <p v-if="guesses.length" class="guesses">
    <span
      ><b>{{ guesses.length }}</b> of {{ state.notes.value.length }} notes guessed:</span
    >
    <span v-if="placed"><i>5</i> place found on the neck</span>
    <span v-if="moved"><b class="about">≈</b> moved or rounded to what can be written</span>
    <span v-if="joined"><b class="about">≈</b> hammered, pulled off or slid into</span>
    <PressButton @click="state.run(confirm())">all are right</PressButton>
  </p>
</template>

<style scoped>
.guesses {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 1.25rem;
  color: var(--soft);
}

button {
  min-height: 2.25rem;
  padding: 0 0.8rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  font-size: var(--text-s);
  cursor: pointer;
}

i,
.about {
  font-size: 1.2em;
}

.about {
  color: var(--third);
}

@media print {
  .guesses {
    display: none;
  }
}
</style>
