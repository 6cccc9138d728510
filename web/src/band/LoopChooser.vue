<script setup lang="ts">
import { useTyped } from '../shell/useTyped'
import PressButton from '../shell/PressButton.vue'
import { hint, useCommand } from '../shell/useCommands'
import { computed, ref } from 'vue'
import SegmentedChoice from '../shell/SegmentedChoice.vue'
import { readLoop, writeLoop } from './settings'
import { useBand } from './useBand'

const emit = defineEmits<{ said: [text: string] }>()
const band = useBand()
const other = useCommand('otherLoop')
const field = ref<HTMLInputElement>()
const written = computed(() => (band.loop && band.metre ? writeLoop(band.loop, band.metre) : ''))
const kinds = computed(() => [
  { id: 'form', name: 'Form', title: 'the whole form, round and round', loop: undefined },
  ...(band.here && !band.offered
    ? [
        { id: 'chord', name: 'Chord', title: 'loop the chord in hand', loop: band.here.chord },
        { id: 'change', name: 'Change', title: 'loop the way into the next chord', loop: band.here.change },
      ]
    : []),
])
function set(text: string) {
  if (!band.metre) return
  if (text.trim()) {
    const { loop, said } = readLoop(text, band.metre)
    band.setLoop(loop)
    if (said) emit('said', said)
  } else band.setLoop(undefined)
  if (field.value) field.value.value = written.value
}
const { shown, type, given } = useTyped(() => written.value)
</script>

<template>
  <div class="loop" role="group" aria-label="loop">
    <PressButton
      class="side"
      v-bind="other"
      :aria-label="`loop ${band.side}${band.aside ? `; loop ${band.side === 'A' ? 'B' : 'A'} waits` : ''}`"
      ><i class="pi pi-replay" :title="hint('loop')" />{{ band.side }}</PressButton
    >
    <div class="bars">
      <SegmentedChoice
        :model-value="band.loopIs"
        :options="kinds"
        label="loop"
        @update:model-value="(id) => band.setLoop(kinds.find((k) => k.id === id)?.loop)"
      />
      <input
        ref="field"
        :value="shown"
        :class="{ on: band.loopIs === 'bars' }"
        placeholder="bars"
        maxlength="12"
        aria-label="loop these bars"
        title="loop these bars, such as 5-8, or 4.3-5.2 for bar and beat; dragging over bars of the sheet does it too"
        @input="type"
        @blur="given"
        @change="(given(), set(($event.target as HTMLInputElement).value))"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
      />
    </div>
  </div>
</template>

<style scoped>
.loop {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}

.bars {
  display: flex;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  background: var(--raised);
}

.bars :deep(.segments) {
  border: 0;
}

.bars .on {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}

.side {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
  min-width: 2.5rem;
  min-height: var(--target);
  padding: 0 0.2rem;
  border: 0;
  background: none;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}

.loop {
  gap: 0.2rem;
}

input {
  width: 5.2rem;
  min-height: var(--target);
  padding: 0 0.5rem;
  border: 0;
  border-left: 1px solid var(--rule);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  text-align: center;
}

input:focus-visible {
  outline-offset: -3px;
}
</style>
