<script setup lang="ts">
/* One key or pedal for who is lost: the place in the form is told and said, and nothing but the box is shown until the next top. */
import { computed, ref, watch } from 'vue'
import { useBand } from '../../band/useBand'
import { metreOf } from '../../music/metre'
import { spoken } from '../../music/text'
import MusicText from '../../music/MusicText.vue'
import PressNeck from '../../neck/PressNeck.vue'
import { useCommands } from '../../shell/useCommands'
import { whereabouts } from './lost'
import type { Chosen } from './useChosen'
import { useVoice } from './useVoice'

const { chosen } = defineProps<{ chosen: Chosen }>()
const { chart, ground, map, position } = chosen
const band = useBand()
const voice = useVoice('prompts', true)
const here = computed(() => {
  const [g, c] = [ground.data.value, chart.value]
  if (!g || !c || band.beat === undefined) return undefined
  return whereabouts(g.bars, metreOf({ beats: c.beats, bars: g.bars.length, lengths: g.lengths }), band.beat)
})
const lost = ref(false)
watch(
  () => here.value?.at ?? 0,
  (at, before) => at < before && (lost.value = false),
)
/* The box of the chord that the chart begins with: it holds over all of them. */
const box = computed(() => {
  const blend = map.data.value?.blends[0]
  return blend?.places.map((p) => ({ string: p.string, fret: p.fret, degree: blend.notes[p.index]!.degree }))
})
useCommands({
  lost: {
    do() {
      const h = here.value
      if (!h) return
      lost.value = !lost.value
      if (lost.value) voice.say(`bar ${h.bar}, ${spoken(h.chord)}`)
    },
    can: () => !!here.value,
  },
})
</script>

<template>
  <section v-if="lost && here" class="lost" aria-live="assertive" aria-label="where the band is">
    <p class="bar">
      bar {{ here.bar }} <b><MusicText :symbol="here.chord" /></b>
    </p>
    <p class="next">
      <template v-if="here.next"
        ><MusicText :symbol="here.next" />
        {{ here.bars ? `in ${here.bars} ${here.bars === 1 ? 'bar' : 'bars'}` : 'in this bar' }}.
      </template>
      Stay in the box; the rest comes back at the top.
    </p>
    <PressNeck
      v-if="map.data.value && position"
      label="the box"
      :height="260"
      :instrument="map.data.value.instrument"
      :low="position.low"
      :high="position.high"
      :marks="box"
    />
  </section>
</template>

<style scoped>
.lost {
  position: absolute;
  inset: 0;
  z-index: 3;
  display: grid;
  align-content: center;
  gap: 1rem;
  padding: 1rem 1.25rem;
  background: var(--paper);
}

.bar {
  font: 600 clamp(2.4rem, 8vw, 6rem) / 1 var(--font-display);
}

.bar b {
  margin-left: 1.5rem;
}

.next {
  font-size: var(--text-l);
  color: var(--soft);
}
</style>
