<script setup lang="ts">
import { engrave, spoken } from '../../music/text'
import { computed } from 'vue'
import { useWindowSize } from '@vueuse/core'
import Button from 'primevue/button'
import type { ChartMap, Move, Place, Target } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { moved } from './chains'
import { nearest } from './moves'
import { away } from './words'
import type { Bench } from './useBench'
import PressButton from '../../shell/PressButton.vue'

const props = defineProps<{
  map: ChartMap
  step: Bench['step']['value']
  coming: Bench['coming']['value']
  moves: Move[]
  from?: Target
  to?: Target
  pinned: boolean
  /** It is told elsewhere, once. */
  playing?: boolean
  /** Tones of the next chord that lie between two of this one. */
  enclosed: ChartMap['changes'][number]['enclosed']
}>()
const emit = defineEmits<{
  light: [moves: { from: Place; to: Place }[]]
  target: [place: Place]
  free: []
  hear: [move: Move]
  further: []
  land: []
  loop: []
}>()
const symbol = (chord: number) => props.map.chords[chord]?.symbol ?? ''
const size = ['stays', 'half step', 'whole step']
const words = (m: Move) =>
  m.halfSteps === 0
    ? 'stays'
    : `${size[Math.abs(m.halfSteps)] ?? Math.abs(m.halfSteps) + ' half steps'} ${m.halfSteps > 0 ? 'up' : 'down'}`
const where = (m: Move) => {
  const p = m.places[0]
  if (!p) return ''
  if (m.halfSteps === 0) return `${p.from.string}:${p.from.fret}`
  const to = many.value || width.value <= 700 ? '→' : ' to '
  return `${p.from.string}:${p.from.fret}${to}${p.to.string}:${p.to.fret}`
}
const is = (m: Move) => m.to.degree === props.to?.degree && m.from.degree === props.from?.degree
/** The thread's own move leads the list when it is none of the near ones. */
const leap = computed(() =>
  props.from && props.to && !props.moves.some(is) ? { from: props.from, to: props.to } : undefined,
)
/** The thread's own move first, the others as the player ranks them. */
const rows = computed(() => [...props.moves.filter(is), ...props.moves.filter((m) => !is(m))])
/** Many stand in two columns where there is room for two. */
const { width } = useWindowSize()
const many = computed(() => rows.value.length > 4 && width.value > 700)
const light = (m: Move) => emit('light', m.places)
</script>

<template>
  <section class="crossing" aria-labelledby="crossing-title">
    <div class="title" role="status" :aria-live="playing ? 'off' : 'polite'" data-swipe>
      <h2 id="crossing-title">
        <span class="now"><MusicText :symbol="symbol(step?.chord ?? 0)" /></span>
        <template v-if="coming[0]">
          <span class="to">to</span><span class="now"><MusicText :symbol="symbol(coming[0].chord)" /></span>
        </template>
      </h2>
      <p v-if="coming[0]" class="when">
        {{ away(coming[0].beats, map.chart) }}
        <span v-if="coming[1]">· then <MusicText :symbol="symbol(coming[1].chord)" /></span>
      </p>
      <p v-else class="when">One chord all the way: there is no change to aim for.</p>
    </div>
    <div class="moves">
      <div class="deeds">
        <PressButton
          v-if="coming[0]"
          class="deed free"
          title="practise this change: its bars go round, you are heard and judged"
          @click="emit('land')"
          >Land it</PressButton
        >
        <PressButton v-if="coming[0]" class="deed free" title="these two bars go round" @click="emit('loop')"
          >2 bars</PressButton
        >
        <PressButton
          class="deed free"
          title="voice leading: through several chords, two tones at once, from where your hand is"
          @click="emit('further')"
          >Voices</PressButton
        >
      </div>
      <p v-if="leap" class="leap">
        The thread goes from {{ leap.from.string }}:{{ leap.from.fret }} to the
        <MusicText :symbol="leap.to.degree" /> at {{ leap.to.string }}:{{ leap.to.fret }}.
      </p>
      <ul v-if="rows.length" :class="{ many }">
        <li v-for="(m, i) in rows" :key="i">
          <PressButton
            :class="{ chosen: is(m) }"
            :aria-pressed="is(m)"
            :title="`${words(m)}; aim for the ${engrave(m.to.degree)}: hand travels ${m.places[0]?.mm ?? 0} mm`"
            @mouseenter="light(m)"
            @focus="light(m)"
            @mouseleave="emit('light', [])"
            @blur="emit('light', [])"
            @click="nearest(m, from) && emit('target', nearest(m, from)!)"
          >
            <MarkBadge :degree="m.from.degree" :size="25" />
            <i class="pi pi-arrow-right" aria-label="to" />
            <MarkBadge :degree="m.to.degree" :size="25" hollow />
            <span class="names"><MusicText :symbol="m.from.note" /> to <MusicText :symbol="m.to.note" /></span>
            <span class="where">{{ where(m) }}</span>
            <span class="size">{{ many || width < 380 ? moved(m.halfSteps) : words(m) }}</span>
          </PressButton>
          <PressButton
            class="hear"
            :aria-label="`hear ${spoken(m.from.note)} to ${spoken(m.to.note)} on the change`"
            title="hear it on the change"
            @click="emit('hear', m)"
          >
            <i class="pi pi-volume-up" />
          </PressButton>
        </li>
        <li
          v-if="enclosed.length"
          class="enclosed"
          :class="{ wide: enclosed.length > 2 }"
          title="two tones of the one chord on either side of a tone of the next: played first, they enclose it"
        >
          around
          <span v-for="e in enclosed" :key="e.to.degree"
            ><MusicText :symbol="e.to.note" />: <MusicText :symbol="e.below.note" /> <MusicText :symbol="e.above.note"
          /></span>
        </li>
      </ul>
      <Button
        v-if="pinned"
        class="free"
        label="Let the thread choose again"
        size="small"
        variant="outlined"
        @click="emit('free')"
      />
    </div>
  </section>
</template>

<style scoped>
.crossing {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.title {
  display: flex;
  align-items: baseline;
  gap: 0.75rem;
  flex-wrap: wrap;
}

h2 {
  display: flex;
  align-items: baseline;
  gap: 0.6rem;
}

.now {
  font-size: 2.5rem;
  line-height: 1;
}

.to {
  font: 400 var(--text-l) var(--font-text);
  color: var(--soft);
}

.crossing {
  position: relative;
}

.deeds {
  position: absolute;
  top: 0;
  right: 0;
  display: flex;
  gap: 0.3rem;
}

.title {
  padding-right: 12.2rem;
}

.deed {
  display: block;
  width: auto;
  white-space: nowrap;
  min-height: 2rem;
  padding: 0 0.6rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  cursor: pointer;
}

.when,
.leap {
  color: var(--soft);
  font-size: var(--text-s);
}

ul {
  overflow-y: auto;
  scrollbar-width: thin;
  margin-top: 0.3rem;
  min-height: 0;
}

li {
  display: flex;
}

button:not(.free) {
  display: grid;
  grid-template-columns: 1.7rem 0.9rem 1.9rem 4.2rem minmax(0, 1fr) auto;
  align-items: center;
  gap: 0.25rem;
  width: 100%;
  min-height: 1.95rem;
  padding: 0 0.4rem;
  border: 0;
  border-top: 1px solid var(--rule);
  background: none;
  color: inherit;
  text-align: left;
  cursor: pointer;
  font-size: var(--text-s);
}

button:not(.free):hover {
  background: var(--raised);
}

button.chosen {
  background: var(--lit);
  font-weight: 700;
}

button:focus-visible {
  outline-offset: -3px;
}

.pi {
  font-size: 0.7rem;
  color: var(--soft);
}

.where {
  color: var(--soft);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.chosen .where,
.chosen .pi {
  color: var(--ink);
}

.size {
  white-space: nowrap;
}

button.hear {
  flex: none;
  display: grid;
  place-items: center;
  grid-template-columns: none;
  width: 2.25rem;
  padding: 0;
}

.enclosed {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 0.5em;
  min-height: 1.95rem;
  padding: 0 0.4rem;
  border-top: 1px solid var(--rule);
  color: var(--soft);
  font-size: var(--text-s);
  white-space: nowrap;
}

.enclosed.wide {
  grid-column: 1 / -1;
}

.moves {
  display: contents;
}

/* Many of them stand in two columns, so that all are seen at once. */
.many {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 0.5rem;
}

.many li {
  min-width: 0;
}

.many button:not(.free, .hear) {
  grid-template-columns: 1.5rem 0.6rem 1.5rem minmax(0, 1fr) auto;
  gap: 0.15rem;
  padding: 0 0.1rem;
}

.many .names {
  position: absolute;
  clip-path: inset(50%);
}

.many .where {
  overflow: visible;
}

.many button.hear {
  width: 1.6rem;
}

.hear .pi {
  font-size: 0.95rem;
}

.free {
  align-self: flex-start;
  margin-top: 0.3rem;
}

/* The chords stand over the neck, what moves under the sheet. */
@media (max-width: 43.75em) {
  .crossing {
    display: contents;
  }

  .title {
    grid-area: chord;
    padding-right: 0;
  }

  .now:first-child {
    font-size: 3rem;
  }

  .moves {
    grid-area: moves;
    display: grid;
  }

  .deeds {
    position: static;
  }

  .deed,
  button:not(.free) {
    min-height: var(--target);
  }

  button.hear {
    width: var(--target);
  }

  .names {
    position: absolute;
    clip-path: inset(50%);
  }

  button:not(.free, .hear) {
    grid-template-columns: 1.7rem 0.9rem 1.9rem minmax(0, 1fr) auto;
    gap: 0.5rem;
  }
}
</style>
