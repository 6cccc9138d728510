<script setup lang="ts">
import { computed } from 'vue'
import type { Blend, Chord, Place } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { holds, type Region } from '../../neck/region'
import type { Asked } from './usePointing'
import PaletteChoice from './PaletteChoice.vue'
import { either, half } from './words'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import PressButton from '../../shell/PressButton.vue'

const props = defineProps<{
  chord: Chord
  blend: Blend
  window: Region
  palette: string
  /** Of two joined boxes the one that the player chose by hand here. */
  byHand?: 'minor' | 'major'
  /** One place over every chord of the chart, when one is pointed out. */
  place?: Asked
}>()
const emit = defineEmits<{
  palette: [id: string]
  box: [box: 'minor' | 'major' | undefined]
  light: [places: Place[]]
  bends: [degree: string | undefined]
  close: []
  hear: [place: Place]
  land: [mode: string]
}>()
const boxes = [
  { id: 'minor', name: 'minor' },
  { id: 'major', name: 'major' },
] as const satisfies { id: 'minor' | 'major'; name: string }[]
const box = computed(() => props.byHand ?? props.blend.box)
const inside = (p: Place) => holds(props.window, p)
/* What one does with a note. */
const deed: Record<string, string> = { 'chord tone': 'rest', extension: 'colour', passing: 'pass' }
const text = (p: Place) => `${p.string}:${p.fret}`
const notes = computed(() =>
  props.blend.notes.map((n, index) => ({
    ...n,
    places: props.blend.places.filter((p) => p.index === index && inside(p)),
  })),
)
const added = computed(() =>
  props.blend.added.map((a) => ({
    ...a,
    places: a.places.filter(inside),
    bends: props.blend.bends.filter((b) => b.degree === a.degree && inside(b)),
  })),
)
/** Tones that the box holds are bent to as well. */
const own = computed(() => {
  const to = new Map<string, (typeof props.blend.bends)[number]>()
  for (const b of props.blend.bends)
    if (b.halfSteps && b.degree && inside(b) && !to.has(b.degree) && !added.value.some((a) => a.degree === b.degree))
      to.set(b.degree, b)
  return [...to.values()]
})
</script>

<template>
  <section class="blend" aria-labelledby="blend-title">
    <header>
      <h2 id="blend-title">
        Blend <small>over <MusicText :symbol="chord.symbol" /></small>
      </h2>
      <PressButton
        class="land"
        title="practise it: play what you like over its bars, and be on a chord tone when it changes"
        @click="emit('land', 'land')"
        >Land it</PressButton
      >
      <PaletteChoice :model-value="palette" @update:model-value="(id) => emit('palette', id)" />
    </header>
    <div v-if="place" class="place">
      <p>
        <b><MusicText :symbol="place.note" /></b> at {{ text(place) }}, the key's <MusicText :symbol="place.degree" />
        <PressButton
          title="hold it over this chord"
          :aria-label="`hear ${text(place)} over this chord`"
          @click="emit('hear', place)"
        >
          <i class="pi pi-volume-up" />
        </PressButton>
        <PressButton aria-label="close" @click="emit('close')"><i class="pi pi-times" /></PressButton>
      </p>
      <p v-if="place.others.length" class="others">also at {{ either(place.others.map(text)) }}</p>
      <ul>
        <li v-for="r in place.readings" :key="r.chord">
          <b><MusicText :symbol="r.chord" /></b> <MusicText :symbol="r.degree" />, {{ deed[r.class] ?? r.class
          }}<template v-for="b in r.bent" :key="b.halfSteps"
            >; bent {{ half[b.halfSteps] }} the <MusicText :symbol="b.degree"
          /></template>
        </li>
      </ul>
    </div>
    <template v-else>
      <div v-if="blend.box" class="box">
        <SegmentedChoice
          :model-value="box"
          :options="boxes"
          label="which box here"
          @update:model-value="(b) => emit('box', b === blend.box ? undefined : b)"
        />
        <p>
          <template v-if="byHand && byHand !== blend.box">Your choice. Proposed is the {{ blend.box }} box: </template>
          <MusicText :said="blend.why ?? ''" />.
        </p>
      </div>
      <ul class="notes">
        <li v-for="n in notes" :key="n.note">
          <PressButton
            :class="[{ rest: n.class === 'chord tone', other: box && n.box !== 'both' && n.box !== box }, n.box]"
            :title="`${n.reason}; press to hear it held over the chord`"
            @click="n.places[0] && emit('hear', n.places[0])"
            @mouseenter="emit('light', n.places)"
            @focus="emit('light', n.places)"
            @mouseleave="emit('light', [])"
            @blur="emit('light', [])"
          >
            <span class="name"
              ><b><MusicText :symbol="n.note" /></b> <MusicText :symbol="n.degree"
            /></span>
            <small v-if="n.box">{{ n.box }}</small>
            <span class="does"
              ><template v-if="n.wants?.length"
                >{{ n.class === 'passing' ? 'pass to' : 'wants' }} <MusicText :symbol="n.wants[0]!" /></template
              ><template v-else>{{ n.class === 'chord tone' ? 'rest' : 'colour' }}</template></span
            >
          </PressButton>
        </li>
      </ul>
      <p v-for="n in notes.filter((n) => n.implies)" :key="`i${n.note}`" class="implied">
        <MusicText :symbol="n.implies!" />.
      </p>
      <ul class="added">
        <li
          v-for="a in added"
          :key="a.degree"
          @mouseenter="(emit('light', a.places), emit('bends', a.degree))"
          @mouseleave="(emit('light', []), emit('bends', undefined))"
        >
          <MarkBadge :degree="a.degree" :size="25" />
          <span>
            Add <b><MusicText :symbol="a.note" /></b
            ><template v-if="a.places.length"> at {{ either(a.places.map(text)) }}</template
            ><template v-if="a.bends[0]"
              >, or bend <MusicText :symbol="blend.notes[a.bends[0].index]!.note" /> at {{ text(a.bends[0]) }} up
              {{ half[a.bends[0].halfSteps] }}</template
            >.
          </span>
        </li>
        <li
          v-if="own.length"
          class="own"
          @mouseenter="emit('bends', own[0]!.degree)"
          @mouseleave="emit('bends', undefined)"
        >
          <span
            >Bend to its own tones:
            <template v-for="(b, i) in own" :key="b.degree"
              >{{ i ? ', ' : '' }}<MusicText :symbol="blend.notes[b.index]!.note" /> at {{ text(b) }} up
              {{ half[b.halfSteps] }} to <b><MusicText :symbol="b.degree!" /></b></template
            >.
            <PressButton
              class="land"
              title="practise it: fretted, then bent to from below"
              @click="emit('land', 'bends')"
              >Land it</PressButton
            ></span
          >
        </li>
        <li v-if="!added.length" class="full">The palette holds every tone of this chord.</li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.5rem;
}

.land {
  flex: none;
  margin-left: auto;
  border: 0;
  background: none;
  color: inherit;
  font: 500 var(--text-s) var(--font-text);
  text-decoration: underline;
  text-decoration-color: var(--rule);
  text-underline-offset: 0.2em;
  cursor: pointer;
}

h2 {
  font-size: var(--text-l);
  white-space: nowrap;
}

small {
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
}

header :deep(.p-select) {
  min-width: 0;
  max-width: 13rem;
}

.implied {
  font-size: var(--text-s);
  line-height: 1.2;
  margin-top: 0.3rem;
}

.box {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  font-size: var(--text-s);
  line-height: 1.2;
  margin-top: 0.3rem;
}

.box :deep(.segments) {
  flex: none;
}

.notes .other {
  border-style: dashed;
}

.notes {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin-top: 0.35rem;
}

.notes li {
  flex: 1 1 3.8rem;
}

.notes button {
  width: 100%;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: var(--raised);
  color: inherit;
  padding: 0.15rem 0.4rem;
  text-align: left;
  line-height: 1.25;
  font-size: var(--text-s);
}

.notes .rest {
  border: 2px solid var(--ink);
}

.notes b {
  font-size: var(--text-m);
}

.name,
.does {
  display: block;
  white-space: nowrap;
}

.does {
  color: var(--soft);
  white-space: nowrap;
}

.added {
  margin-top: 0.4rem;
  display: grid;
  gap: 0.2rem;
}

.added li {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  line-height: 1.25;
}

.full {
  color: var(--soft);
}

.place p {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  margin-top: 0.3rem;
}

.place button {
  margin-left: auto;
  border: 0;
  background: none;
  color: inherit;
  width: 2rem;
  height: 2rem;
  cursor: pointer;
}

.place ul {
  display: grid;
  gap: 0.15rem;
  max-height: 8.5rem;
  overflow-y: auto;
  font-size: var(--text-s);
}
</style>
