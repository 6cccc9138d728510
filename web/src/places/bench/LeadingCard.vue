<script setup lang="ts">
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { spoken } from '../../music/text'
import PressButton from '../../shell/PressButton.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import type { Place } from '../../api/client'
import WideCard from './WideCard.vue'
import { aloud, kept, moved, waysOf, type Chain } from './chains'
import type { Leading } from './useLeading'
import { Select } from '../../shell/parts'

/* One chord led into the next, and on: each way a row, the least movement first. */
const props = defineProps<{ leading: Leading }>()
const emit = defineEmits<{ light: [moves: { from: Place; to: Place }[]]; close: [] }>()
const { voices, tones, through, spans, span, hand, chains, problem } = props.leading
const voiceNames = [
  { id: 'one', name: 'one tone' },
  { id: 'two', name: 'two' },
  { id: 'three', name: 'three' },
] as const
const toneNames = [
  { id: 'any', name: 'any' },
  { id: 'guide', name: '3 and 7', title: 'the guide tones alone' },
] as const
const sum = (c: Chain) => {
  const stay = kept(c)
  const steps = c.halfSteps === 1 ? 'one half step' : `${c.halfSteps} half steps`
  return `${steps}${stay ? `, ${stay} held` : ''}, ${Math.round(c.mm / 10)} cm`
}
</script>

<template>
  <WideCard class="leading" title="Voice leading" @close="emit('close')">
    <template #choices>
      <Select
        v-model="through"
        :options="spans"
        option-label="name"
        option-value="id"
        size="small"
        aria-label="through which chords"
      >
        <template #value>{{ span?.name }}</template>
      </Select>
      <SegmentedChoice v-model="voices" :options="[...voiceNames]" label="tones at once" />
      <SegmentedChoice v-model="tones" :options="[...toneNames]" label="which tones" />
    </template>
    <p class="hand">
      <template v-if="hand"
        >From your hand at {{ hand.string }}:{{ hand.fret }}, the nearest first.
        <PressButton class="link" @click="leading.stand()">From anywhere</PressButton></template
      ><template v-else>Press a place on the neck: that is where your hand stands.</template>
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-else-if="!span" class="problem">One chord all the way: there is nothing to lead to.</p>
    <ul v-else>
      <li v-for="(c, i) in chains" :key="i">
        <PressButton
          :aria-label="`hear ${aloud(c, spoken)}`"
          title="hear it over its chords"
          @mouseenter="emit('light', waysOf(c))"
          @focus="emit('light', waysOf(c))"
          @mouseleave="emit('light', [])"
          @blur="emit('light', [])"
          @click="leading.hear(c)"
        >
          <span class="links">
            <span v-for="(l, k) in c.links" :key="k" class="of">
              <b><MusicText :symbol="l.chord" /></b>
              <span v-for="t in l.tones" :key="t.string" class="tone">
                <MarkBadge :degree="t.degree" :size="24" />
                <span class="place">{{ t.string }}:{{ t.fret }}</span>
                <span class="move">{{ k ? moved(t.move) : '' }}</span>
              </span>
            </span>
          </span>
          <span class="sum"><i class="pi pi-volume-up" aria-hidden="true" />{{ sum(c) }}</span>
        </PressButton>
      </li>
    </ul>
  </WideCard>
</template>

<style scoped>
.leading :deep(.p-select) {
  min-width: 13rem;
}

.hand,
.sum,
.move,
.place {
  color: var(--soft);
  font-size: var(--text-s);
}

.problem {
  color: var(--danger);
}

.link {
  border: 0;
  background: none;
  color: inherit;
  text-decoration: underline;
  text-underline-offset: 4px;
  min-height: var(--target);
  cursor: pointer;
}

li button {
  display: block;
  width: 100%;
  border: 0;
  border-top: 1px solid var(--rule);
  background: none;
  color: inherit;
  padding: 0.25rem 0.2rem;
  text-align: left;
  cursor: pointer;
}

li button:hover {
  background: var(--raised);
}

.links {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.9rem;
}

.of b {
  font-size: var(--text-s);
}

.tone {
  display: flex;
  align-items: center;
  gap: 0.25rem;
}

.sum {
  display: flex;
  align-items: center;
  gap: 0.4rem;
}
</style>
