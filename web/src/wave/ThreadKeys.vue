<script setup lang="ts">
/* The wave for the hands on the keyboard: it takes the focus where the drawing is. */
import type { Note, Target } from '../api/client'
import type { Step } from '../sheet/step'
import { useThreadKeys } from './useThreadKeys'

const props = defineProps<{
  steps: Step[]
  at: number
  targets: (Target | undefined)[]
  runs: { notes: Note[] }[]
}>()
const emit = defineEmits<{ go: [step: number]; pin: [step: number, to: Note] }>()
const { key, told, held } = useThreadKeys(
  () => ({ ...props, tones: (i) => props.runs[props.steps[i]!.chord]?.notes ?? [] }),
  (i) => emit('go', i),
  (i, n) => emit('pin', i, n),
)
</script>

<template>
  <div
    class="keys"
    tabindex="0"
    role="application"
    aria-label="the wave: arrow keys go along the thread, and up or down to another tone of the chord"
    @keydown="key"
    @focus="held = true"
    @blur="held = false"
  >
    <p class="hidden-text" aria-live="polite">{{ told }}</p>
  </div>
</template>

<style scoped>
.keys {
  position: absolute;
  inset: 0;
  pointer-events: none;
}

.keys:focus-visible {
  outline: 3px solid var(--lit-rule);
  outline-offset: -3px;
}
</style>
