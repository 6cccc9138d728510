<script setup lang="ts">
import type { Chord } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { engrave, spoken } from '../../music/text'
import PressButton from '../../shell/PressButton.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import TickBox from '../../shell/TickBox.vue'
import WideCard from './WideCard.vue'
import type { Other, OtherArpeggio } from './useOther'

/* Arpeggios of other chords over the chord in hand: what rests, what colours, what has to move. */
const props = defineProps<{ chord: Chord; musicKey: string; other: Other }>()
const emit = defineEmits<{ close: [] }>()
const { order, octave, list, chosen } = props.other
const orderNames = [
  { id: 'suits', name: 'what suits' },
  { id: 'key', name: 'steps of the key' },
  { id: 'scale', name: 'of its scale' },
] as const
/* Of the key where it is one of its steps, or else of the scale. */
const place = (o: OtherArpeggio) =>
  o.keyStep && order.value !== 'scale'
    ? `${o.keyStep} of ${engrave(props.musicKey)}${o.raised ? ', raised 7' : ''}`
    : `${o.scaleStep} of its scale`
</script>

<template>
  <WideCard class="others" title="Other arpeggios" @close="emit('close')">
    <template #beside
      ><small>over <MusicText :symbol="chord.symbol" /></small
    ></template>
    <template #choices>
      <SegmentedChoice v-model="order" :options="[...orderNames]" label="which arpeggios, in which order" />
      <TickBox v-model="octave">one octave, in the scale</TickBox>
    </template>
    <ul>
      <li v-for="o in list" :key="o.chord" :class="{ chosen: o === chosen }">
        <PressButton class="show" :aria-pressed="o === chosen" title="show it on the neck" @click="other.choose(o)">
          <b><MusicText :symbol="o.chord" /></b>
          <span class="step"><MusicText :said="place(o)" /></span>
          <span class="tones"
            ><span
              v-for="t in o.tones"
              :key="t.note"
              :class="{ moves: t.class !== 'chord tone' && t.class !== 'extension' }"
              ><MarkBadge :degree="t.degree" :size="24" :hollow="t.class !== 'chord tone'" /></span
          ></span>
          <span class="says"
            ><MusicText :said="o.says" /><template v-if="o.moves"
              >; {{ o.moves === 1 ? 'one tone has' : `${o.moves} tones have` }} to move on</template
            ></span
          >
        </PressButton>
        <PressButton
          class="hear"
          :aria-label="`hear ${spoken(o.chord)} over ${spoken(chord.symbol)}`"
          @click="other.hear(o)"
        >
          <i class="pi pi-volume-up" />
        </PressButton>
      </li>
    </ul>
  </WideCard>
</template>

<style scoped>
li {
  display: flex;
  border-top: 1px solid var(--rule);
}

li.chosen {
  background: var(--lit);
}

button {
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
}

.show {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 5.2rem minmax(0, 1fr) auto;
  align-items: center;
  gap: 0 0.4rem;
  padding: 0.3rem 0.2rem;
  text-align: left;
}

.show:hover {
  background: var(--raised);
}

.tones {
  display: flex;
  gap: 0.15rem;
}

.moves {
  opacity: 0.55;
}

.step,
.says {
  color: var(--soft);
  font-size: var(--text-s);
}

.step {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.says {
  grid-column: 1 / -1;
}

.hear {
  flex: none;
  width: 2.4rem;
}
</style>
