<script setup lang="ts">
/* How much is asked at once, with a press for less and for more. */
import MusicText from '../../music/MusicText.vue'
import PressButton from '../../shell/PressButton.vue'
import type { CallStep } from './useCallStep'

const { step } = defineProps<{ step: CallStep }>()
const emit = defineEmits<{ move: [by: -1 | 1] }>()
</script>

<template>
  <p class="step" role="group" aria-label="how much is asked">
    <PressButton
      :disabled="!step.follows.value || step.step.value === 1"
      aria-label="easier"
      title="easier"
      @click="emit('move', -1)"
    >
      <i class="pi pi-minus" />
    </PressButton>
    <span aria-live="polite">
      <b>{{ step.step.value }}</b> of {{ step.steps.value.length }}: <MusicText :said="step.name.value ?? ''" />
      <small v-if="step.moved.value && step.follows.value">{{ step.moved.value }}</small>
    </span>
    <PressButton
      :disabled="!step.follows.value || step.step.value === step.steps.value.length"
      aria-label="harder"
      title="harder; it goes there by itself after five right answers in a row"
      @click="emit('move', 1)"
    >
      <i class="pi pi-plus" />
    </PressButton>
  </p>
</template>

<style scoped>
.step {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-width: 0;
  color: var(--soft);
}

b {
  color: var(--ink);
}

small {
  color: var(--ink);
  font-size: var(--text-s);
  font-weight: 700;
}

button {
  width: 2.5rem;
  height: 2.5rem;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  background: var(--raised);
  color: inherit;
  cursor: pointer;
}

button:disabled {
  opacity: 0.4;
  cursor: default;
}
</style>
