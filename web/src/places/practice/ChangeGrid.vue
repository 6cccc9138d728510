<script setup lang="ts">
/* The form, four bars a row: each change with the degree that it was met on. What was not met is told by a shape and a
   word, never by colour alone; what has not come yet is empty. */
import { computed } from 'vue'
import type { FreeLanding, PracticeGround } from '../../api/client'
import type { LoopBeats } from '../../band/settings'
import type { Metre } from '../../music/metre'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { spoken } from '../../music/text'
import PressButton from '../../shell/PressButton.vue'
import { barUnder, useBarDrag } from '../../sheet/useBarDrag'

const props = defineProps<{
  bars: PracticeGround['bars']
  metre: Metre
  landings: Map<number, FreeLanding>
  beat?: number
  /** so close that something finds room beneath it */
  close?: boolean
  /** the chord that is looped, alone */
  only?: string
  /** what goes round, where that is not the whole form */
  loop?: LoopBeats
}>()
const emit = defineEmits<{ loop: [chord: string]; span: [loop: LoopBeats] }>()
const { drawn, start, move, end, cancel, click } = useBarDrag(barUnder, (from, to) =>
  emit('span', { from: props.metre.startOf(from), to: props.metre.startOf(to + 1) }),
)
const all = computed(() =>
  props.bars.map((changes, i) => ({
    number: i + 1,
    aside: !!props.loop && (props.metre.startOf(i + 1) <= props.loop.from || props.metre.startOf(i) >= props.loop.to),
    changes: changes.map((c) => ({ at: c.at, symbol: c.chord, landing: props.landings.get(c.at) })),
  })),
)
const here = computed(() => (props.beat === undefined ? -1 : props.metre.at(props.beat).bar))
</script>

<template>
  <ol
    class="grid"
    :class="{ close }"
    aria-label="the changes"
    title="draw over bars, and they go round"
    @pointerdown="start"
    @pointermove="move"
    @pointerup="end"
    @pointercancel="cancel"
    @click.capture="click"
  >
    <li
      v-for="b in all"
      :key="b.number"
      :data-bar="b.number"
      :class="{
        here: b.number - 1 === here,
        aside: b.aside,
        drawn: drawn && b.number - 1 >= drawn.from && b.number - 1 <= drawn.to,
      }"
    >
      <span class="number">{{ b.number }}</span>
      <div
        v-for="c in b.changes"
        :key="c.at"
        class="change"
        :data-landing="c.landing && (c.landing.counts ? 'counts' : c.landing.when)"
        :title="c.landing?.says"
      >
        <PressButton
          class="symbol"
          :aria-pressed="only === c.symbol"
          :aria-label="`${only === c.symbol ? 'back to the whole form' : 'loop'} ${spoken(c.symbol)}`"
          :title="only === c.symbol ? 'back to the whole form (L)' : 'loop this chord alone (L)'"
          @click="emit('loop', c.symbol)"
        >
          <MusicText :symbol="c.symbol" />
        </PressButton>
        <span v-if="c.landing" class="met" :class="{ counts: c.landing.counts, silent: c.landing.when === 'silent' }">
          <MarkBadge v-if="c.landing.degree" :degree="c.landing.degree" :size="26" />
          <small>{{ c.landing.word }}</small>
        </span>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.grid {
  touch-action: pan-y;
}

.drawn {
  background: var(--lit);
}

.grid {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 1px;
  padding: 1px;
  margin: 0;
  list-style: none;
  background: var(--rule);
}

li {
  position: relative;
  display: flex;
  min-height: 5.6rem;
  padding: 0.4rem 0.6rem 0.4rem 2rem;
  background: var(--raised);
  gap: 0.5rem;
}

.aside {
  background: var(--paper);
  color: var(--soft);
}

.here {
  background: var(--lit);
}

.number {
  position: absolute;
  left: 0.4rem;
  top: 0.35rem;
  color: var(--soft);
  font-size: var(--text-s);
}

.change {
  flex: 1;
  min-width: 0;
}

.symbol {
  display: block;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: 600 1.6rem / 1.2 var(--font-display);
  text-align: left;
  cursor: pointer;
}

.symbol:hover,
.symbol[aria-pressed='true'] {
  text-decoration: underline 3px var(--third);
  text-underline-offset: 5px;
}

.met {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  margin-top: 0.25rem;
}

.met:not(.counts) small {
  text-decoration: underline wavy var(--third) 1px;
  text-underline-offset: 3px;
}

.met.silent small {
  text-decoration: none;
  color: var(--soft);
}

@media (width < 40em) {
  .grid {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}

.close li {
  min-height: 3.4rem;
}

.close .change {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}
</style>
