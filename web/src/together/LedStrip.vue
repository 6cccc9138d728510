<script setup lang="ts">
/* The strip of a device that follows: the laptop's band is led from here, by presses, keys and pedals. */
import { computed, ref } from 'vue'
import { metreOf } from '../music/metre'
import { useBand } from '../band/useBand'
import PressButton from '../shell/PressButton.vue'
import SegmentedChoice from '../shell/SegmentedChoice.vue'
import { useCommands } from '../shell/useCommands'
import type { Lead, View } from './lead'
import type { DeedId } from './wire'

const view = defineModel<View>({ required: true })
const { lead, there, out } = defineProps<{ lead: Lead | null; there: boolean; out: boolean }>()
const emit = defineEmits<{ ask: [deed: DeedId]; leave: [] }>()
const band = useBand()
const bar = computed(() => {
  const a = band.audition
  if (!band.playing || band.beat === undefined) return ''
  const { bar, beat } = metreOf(a ? { ...a, bars: a.bars ?? 0 } : (band.chart ?? { beats: 4, bars: 0 })).at(band.beat)
  return band.beat < 0 ? 'count-in' : `bar ${bar + 1} · ${beat + 1}`
})
/* On a narrow screen what is set once waits behind a press. */
const unfolded = ref(false)
const says = computed(() => {
  if (out) return 'This device was put out.'
  if (!there) return 'The laptop cannot be reached; it is looked for.'
  if (!lead) return 'No page of Undaris is open at the laptop.'
  return lead.trouble ?? ''
})
/* They go to the laptop before anything here. */
const led = (deed: DeedId) => () => emit('ask', deed)
useCommands(
  {
    play: led('play'),
    slower: led('slower'),
    faster: led('faster'),
    loop: led('loop'),
    next: led('next'),
    previous: led('back'),
    skip: led('next'),
    again: led('again'),
    uncover: led('show'),
    keep: led('keep'),
  },
  { first: true },
)
</script>

<template>
  <aside class="follows" aria-label="the laptop’s band">
    <p v-if="says" class="says" role="status">{{ says }} <a v-if="out" href="/pair">Pair it anew</a></p>
    <PressButton class="play" :class="{ on: lead?.playing }" :disabled="!lead || !there" @click="emit('ask', 'play')">
      <i class="pi" :class="lead?.playing ? 'pi-stop' : 'pi-play'" />{{ lead?.playing ? 'Stop' : 'Play' }}
    </PressButton>
    <p class="title">
      <b v-if="bar">{{ bar }}</b> {{ lead?.title }} <span v-if="lead">♩ {{ lead.tempo }}</span>
    </p>
    <PressButton v-if="lead?.shown" @click="emit('ask', 'again')">Again</PressButton>
    <PressButton v-else :aria-pressed="!!lead?.loop" :disabled="!lead" @click="emit('ask', 'loop')">Loop</PressButton>
    <PressButton
      class="fold"
      :aria-expanded="unfolded"
      :aria-label="`${unfolded ? 'less' : 'more'} of following`"
      @click="unfolded = !unfolded"
      ><i class="pi" :class="unfolded ? 'pi-angle-down' : 'pi-angle-up'"
    /></PressButton>
    <div class="rest" :class="{ unfolded }">
      <PressButton aria-label="slower" :disabled="!lead" @click="emit('ask', 'slower')">−</PressButton>
      <PressButton aria-label="faster" :disabled="!lead" @click="emit('ask', 'faster')">+</PressButton>
      <SegmentedChoice
        v-model="view"
        label="the chart is shown"
        :options="[
          { id: 'stand', name: 'Stand' },
          { id: 'sheet', name: 'Sheet' },
        ]"
      />
      <PressButton title="look elsewhere, with a band of its own" @click="emit('leave')">On its own</PressButton>
    </div>
  </aside>
</template>

<style scoped>
.follows {
  position: sticky;
  bottom: 0;
  z-index: 6;
  grid-column: -2 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.25rem 0.5rem;
  padding: 0.35rem 0.75rem;
  background: var(--raised);
  border-top: 2px solid var(--ink);
}

.follows > button,
.rest > button {
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 1px solid var(--ink);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-weight: 600;
  cursor: pointer;
}

.follows > button[aria-pressed='true'] {
  background: var(--lit);
}

.follows button:disabled {
  opacity: 0.5;
}

.follows .play {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  border-radius: 999px;
  background: var(--ink);
  color: var(--paper);
}

.follows .play.on {
  background: var(--lit);
  color: var(--ink);
}

.rest {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 0.5rem;
}

.follows .fold {
  display: none;
}

@media (max-width: 40em) {
  .follows .fold {
    display: inline-block;
  }

  .rest:not(.unfolded) {
    display: none;
  }
}

.title {
  flex: 1 1 6rem;
  min-width: 0;
  color: var(--soft);
}

.title b {
  color: var(--ink);
}

.says {
  flex: 1 0 100%;
  font-weight: 600;
}
</style>
