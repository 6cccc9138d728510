<script setup lang="ts">
import { ref } from 'vue'
import { useBand } from './useBand'
import { useCommand } from '../shell/useCommands'
import { maxTempo, minTempo } from '../api/facts'
import PressButton from '../shell/PressButton.vue'
import { useTyped } from '../shell/useTyped'

const emit = defineEmits<{ said: [text: string] }>()
const band = useBand()
const field = ref<HTMLInputElement>()
function set(text: string) {
  const wanted = Number(text)
  band.setTempo(Number.isFinite(wanted) ? wanted : band.tempo)
  if (!Number.isFinite(wanted) || !text.trim()) emit('said', `“${text}” is no tempo; it stays at ${band.tempo}.`)
  else if (band.tempo !== Math.round(wanted))
    emit(
      'said',
      `A tempo of ${text} cannot be played; between ${minTempo} and ${maxTempo} can. It is set to ${band.tempo}.`,
    )
  if (field.value) field.value.value = String(band.tempo)
}
const { shown, type, given } = useTyped(() => String(band.tempo))
const slower = useCommand('slower')
const faster = useCommand('faster')
const half = useCommand('half')
</script>

<template>
  <div class="tempo" role="group" aria-label="tempo">
    <PressButton class="step" aria-label="slower" v-bind="slower">
      <i class="pi pi-minus" />
    </PressButton>
    <input
      ref="field"
      :value="shown"
      inputmode="numeric"
      maxlength="6"
      aria-label="beats a minute"
      title="beats a minute"
      @input="type"
      @blur="given"
      @change="(given(), set(($event.target as HTMLInputElement).value))"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
    />
    <PressButton class="step" aria-label="faster" v-bind="faster">
      <i class="pi pi-plus" />
    </PressButton>
    <PressButton
      class="half"
      :aria-pressed="band.halved"
      v-bind="half"
      :aria-label="`half the tempo${band.halved ? ', now on' : ''}`"
    >
      ½
    </PressButton>
    <PressButton
      v-if="band.chart && !band.halved && band.tempo !== band.chart.tempo && !band.settings.ladder.on"
      class="back step"
      title="back to the chart's tempo"
      :aria-label="`back to ${band.chart.tempo}`"
      @click="band.setTempo(band.chart.tempo)"
    >
      <i class="pi pi-undo" />
    </PressButton>
  </div>
</template>

<style scoped>
.half[aria-pressed='true'] {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}

.tempo {
  display: flex;
  align-items: center;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
}

button {
  width: var(--target);
  height: var(--target);
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
}

button:focus-visible,
input:focus-visible {
  outline-offset: -3px;
}

input {
  width: 3.4rem;
  height: var(--target);
  border: 0;
  background: none;
  color: inherit;
  text-align: center;
  font: 700 var(--text-l) var(--font-text);
}
</style>
