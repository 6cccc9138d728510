<script setup lang="ts">
/* The strip of a device that follows: the laptop's band is led from here. */
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { metreOf } from '../music/metre'
import { useBand } from '../band/useBand'
import PressButton from '../shell/PressButton.vue'
import SegmentedChoice from '../shell/SegmentedChoice.vue'
import { useCommands } from '../shell/useCommands'
import { following } from './following'
import { useFollowed } from './useFollowed'

const band = useBand()
const route = useRoute()
const { lead, there, out, view, ask } = useFollowed()
/* On a narrow screen what is set once waits behind a press. */
const unfolded = ref(false)
const bar = computed(() => {
  const a = band.audition
  if (!band.playing || band.beat === undefined) return ''
  const { bar, beat } = metreOf(a ? { ...a, bars: a.bars ?? 0 } : (band.chart ?? { beats: 4, bars: 0 })).at(band.beat)
  return band.beat < 0 ? 'count-in' : `bar ${bar + 1} · ${beat + 1}`
})
/* What is read from across the room is pressed without looking: on its left half back, on its right half on. */
const halves = computed(() => following.value && /^\/(stand|call)/.test(route.path))
const says = computed(() => {
  if (out.value) return 'This device was put out.'
  if (!there.value) return 'The laptop cannot be reached; it is looked for.'
  if (!lead.value) return 'No page of Undaris is open at the laptop.'
  return lead.value.trouble ?? ''
})
const led = (deed: Parameters<typeof ask>[0]) => ({ do: () => ask(deed), can: () => following.value })
useCommands({
  play: led('play'),
  slower: led('slower'),
  faster: led('faster'),
  loop: led('loop'),
  next: led('next'),
  previous: led('back'),
})
</script>

<template>
  <Teleport to=".room">
    <template v-if="halves">
      <button class="half back" type="button" aria-label="back" @click="ask('back')" />
      <button class="half next" type="button" aria-label="next" @click="ask('next')" />
    </template>
    <aside v-if="following" class="follows" aria-label="the laptop’s band">
      <p v-if="says" class="says" role="status">{{ says }} <a v-if="out" href="/pair">Pair it anew</a></p>
      <PressButton class="play" :class="{ on: lead?.playing }" :disabled="!lead || !there" @click="ask('play')">
        <i class="pi" :class="lead?.playing ? 'pi-stop' : 'pi-play'" />{{ lead?.playing ? 'Stop' : 'Play' }}
      </PressButton>
      <p class="title">
        <b v-if="bar">{{ bar }}</b> {{ lead?.title }} <span v-if="lead">♩ {{ lead.tempo }}</span>
      </p>
      <PressButton v-if="lead?.shown" @click="ask('again')">Again</PressButton>
      <PressButton v-else :aria-pressed="!!lead?.loop" :disabled="!lead" @click="ask('loop')">Loop</PressButton>
      <PressButton
        class="fold"
        :aria-expanded="unfolded"
        :aria-label="`${unfolded ? 'less' : 'more'} of following`"
        @click="unfolded = !unfolded"
        ><i class="pi" :class="unfolded ? 'pi-angle-down' : 'pi-angle-up'"
      /></PressButton>
      <div class="rest" :class="{ unfolded }">
        <PressButton aria-label="slower" :disabled="!lead" @click="ask('slower')">−</PressButton>
        <PressButton aria-label="faster" :disabled="!lead" @click="ask('faster')">+</PressButton>
        <SegmentedChoice
          v-model="view"
          label="the chart is shown"
          :options="[
            { id: 'stand', name: 'Stand' },
            { id: 'sheet', name: 'Sheet' },
          ]"
        />
        <PressButton title="look elsewhere, with a band of its own" @click="following = false">On its own</PressButton>
      </div>
    </aside>
    <PressButton v-else class="back-to" @click="following = true"
      ><i class="pi pi-link" />Follow the laptop{{ lead?.playing ? `: ${lead.title}` : '' }}</PressButton
    >
  </Teleport>
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
.rest > button,
.back-to {
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

.half {
  position: fixed;
  z-index: 4;
  top: 7rem;
  bottom: 8rem;
  width: 50%;
  border: 0;
  background: none;
  cursor: pointer;
}

.half.back {
  left: 0;
}

.half.next {
  right: 0;
}

.half:active {
  background: color-mix(in srgb, var(--lit) 40%, transparent);
}

.back-to {
  position: fixed;
  z-index: 6;
  right: 0.75rem;
  bottom: 5.5rem;
  display: flex;
  align-items: center;
  gap: 0.5rem;
  background: var(--lit);
}
</style>
