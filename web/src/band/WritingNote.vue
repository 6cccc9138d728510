<script setup lang="ts">
/* A file is being written, or could not be. */
import PressButton from '../shell/PressButton.vue'
import { useWriting } from './useWriting'

const writing = useWriting()
</script>

<template>
  <p v-if="writing.trouble" class="trouble" role="alert">
    {{ writing.trouble }}
    <PressButton aria-label="close this message" @click="writing.trouble = ''"><i class="pi pi-times" /></PressButton>
  </p>
  <p v-if="writing.title" class="writing" role="status">
    <span>Writing {{ writing.title }} as WAV</span>
    <progress :value="writing.part" max="1" aria-label="how far it is written" />
    <PressButton @click="writing.stop()">Stop writing</PressButton>
  </p>
</template>

<style scoped>
.trouble {
  flex: 1 0 100%;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  color: var(--danger);
  font-weight: 600;
}

.writing {
  flex: 1 0 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.25rem 1rem;
}

.writing progress {
  flex: 1 1 8rem;
}

.writing button {
  flex: none;
  min-height: var(--target);
  padding: 0 1rem;
  border: 2px solid var(--ink);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}

.trouble button {
  border: 0;
  background: none;
  color: inherit;
  width: var(--target);
  height: var(--target);
  cursor: pointer;
}
</style>
