<script setup lang="ts">
import { computed } from 'vue'
import Button from 'primevue/button'
import type { Chord, Note, Place, Position, Run } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { engrave, spoken } from '../../music/text'
import PressButton from '../../shell/PressButton.vue'
import { useCommand } from '../../shell/useCommands'

const props = defineProps<{
  chord: Chord
  run: Run
  window: Position
  heard?: Place
  /** The movable shape that the chord takes here, a grip of it, and where its fingering serves again. */
  shape?: string
  grip?: string
  elsewhere?: { at: number; chord: string; low: number; high: number }[]
}>()
const emit = defineEmits<{
  pick: [note: Note]
  hold: [place: Place]
  hear: []
  go: [position: number]
  others: []
  land: []
}>()

const place = (n: Place) => `${n.string}:${n.fret}`
const words = (n: Note) =>
  `${spoken(n.degree)}, ${spoken(n.note)}, string ${n.string}, ${n.fret ? 'fret ' + n.fret : 'open'}` +
  (n.finger ? `, finger ${n.finger}` : '')
const simpler = computed(() => props.chord.tones.filter((t) => t.simpler))
const strum = useCommand('strum')
</script>

<template>
  <section class="run-card" aria-labelledby="run-title">
    <h2 id="run-title">
      Run
      <small
        ><MusicText :symbol="chord.symbol" /><template v-if="shape">, {{ shape }} shape</template></small
      >
      <PressButton
        v-if="!chord.none"
        class="hear"
        title="arpeggios of other chords over this one"
        @click="emit('others')"
        >Others</PressButton
      >
      <PressButton
        v-if="run.notes.length"
        class="hear"
        title="practise it: nothing but its tones, over its bars"
        @click="emit('land')"
        >Land it</PressButton
      >
      <PressButton
        v-if="run.notes.length"
        class="hear"
        aria-label="hear the run, note by note over its chord"
        title="note by note over its chord"
        @click="emit('hear')"
      >
        <i class="pi pi-volume-up" />Hear
      </PressButton>
    </h2>
    <p v-if="chord.none" class="empty">Silence: the band rests here, and so may you.</p>
    <p v-else-if="!run.notes.length" class="empty">No tone of this chord lies in these frets. Widen the window.</p>
    <ol v-else>
      <li v-for="(n, i) in run.notes" :key="i" :class="{ heard: heard?.string === n.string && heard.fret === n.fret }">
        <PressButton
          :aria-label="`hold over the chord: ${words(n)}`"
          title="hear it held over the chord"
          @click="emit('hold', n)"
        >
          <MarkBadge :degree="n.degree" :size="29" />
          <span class="note"><MusicText :symbol="n.note" /></span>
          <span class="place">{{ place(n) }}</span>
          <span class="finger">{{ n.finger ?? 'open' }}</span>
        </PressButton>
      </li>
    </ol>
    <p v-if="grip || elsewhere?.length" class="held">
      <PressButton v-if="grip" v-bind="strum" :aria-label="`strum the grip ${grip}`">
        grip <b>{{ grip }}</b>
      </PressButton>
      <span v-if="elsewhere?.length"
        >alike:
        <PressButton
          v-for="e in elsewhere.slice(0, 3)"
          :key="`${e.at} ${e.chord}`"
          :title="`${engrave(e.chord)} in frets ${e.low} to ${e.high} is played alike`"
          @click="emit('go', e.at)"
          ><MusicText :symbol="e.chord" /> {{ e.low }}–{{ e.high }}</PressButton
        >
      </span>
    </p>
    <p v-if="simpler.length" class="rows">
      <template v-for="(t, i) in simpler" :key="t.note"
        >{{ i ? ', ' : '' }}<MusicText :symbol="t.note" /> sounds as <MusicText :symbol="t.simpler!" /></template
      >.
    </p>
    <p v-for="n in run.alternatives" :key="place(n)" class="choice">
      <span><MusicText :symbol="n.note" /> is also at {{ place(n) }}.</span>
      <Button label="Take it there" variant="outlined" size="small" @click="emit('pick', n)" />
    </p>
    <p v-if="run.lacks?.length" class="caution">
      Not in this region:
      <template v-for="(l, i) in run.lacks" :key="l.degree"
        >{{ i ? ', ' : '' }}<MusicText :symbol="l.degree" /> (<MusicText :symbol="l.note" />, nearest at
        {{ place(l.nearest) }})</template
      >.
    </p>
    <p v-if="run.missing?.length" class="caution">
      Out of reach here:
      <template v-for="(m, i) in run.missing" :key="m">{{ i ? ', ' : '' }}<MusicText :symbol="m" /></template>. The
      strings are tuned too far apart for these frets.
    </p>
    <p v-if="!run.widest.comfortable" class="caution">
      A stretch of {{ Math.round(run.widest.mm) }} mm, frets {{ run.widest.low }} to {{ run.widest.high }}: warm up
      first, or play it higher up. Stop if it hurts.
    </p>
  </section>
</template>

<style scoped>
small {
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
  margin-left: 0.35rem;
}

ol {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(2.25rem, 1fr));
  gap: 0.25rem 0;
  margin-top: 0.3rem;
}

li button {
  display: grid;
  justify-items: center;
  width: 100%;
  line-height: 1.2;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}

li button:hover {
  background: var(--raised);
}

h2 {
  font-size: var(--text-l);
  display: flex;
  align-items: baseline;
  gap: 0.3rem;
}

.hear {
  margin-left: auto;
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  white-space: nowrap;
  min-height: 1.6rem;
  padding: 0 0.4rem;
  border: 0;
  background: none;
  color: inherit;
  font: 500 var(--text-s) var(--font-text);
  cursor: pointer;
}

.hear + .hear {
  margin-left: 0;
}

.heard {
  background: var(--lit);
  border-radius: var(--round);
}

.note,
.place {
  font-size: var(--text-s);
}

.place {
  color: var(--soft);
}

.finger {
  font-weight: 700;
}

.rows {
  font-size: var(--text-s);
  color: var(--soft);
  margin-top: 0.2rem;
}

.choice {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  margin-top: 0.35rem;
}

.held {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.9rem;
  color: var(--soft);
  font-size: var(--text-s);
}

.held button {
  min-height: 1.65rem;
  padding: 0.1rem 0.15rem;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
  text-decoration: underline;
  text-decoration-color: var(--rule);
  text-underline-offset: 0.2em;
}

.held b {
  color: var(--ink);
}

.held button:hover {
  color: var(--ink);
}

.caution {
  margin-top: 0.4rem;
  padding-left: 0.6rem;
  border-left: 4px solid var(--lit-rule);
  font-size: var(--text-s);
}

.empty {
  color: var(--soft);
}
</style>
