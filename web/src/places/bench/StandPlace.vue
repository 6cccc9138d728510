<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import Select from 'primevue/select'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import StandNeck from './StandNeck.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import { useCommands } from '../../shell/useCommands'
import { useBench } from './useBench'
import { useBenchKeys } from './useBenchKeys'
import { useFollow } from './useFollow'
import { useReadChords } from './useReadChords'
import { away } from './words'

/* The chord of now, the chord to come and where to arrive, to be read from two metres. */
const bench = useBench()
const { data, step, chord, coming, window, run, targets, at, nextTarget, map } = bench
const router = useRouter()
useTitle(computed(() => (data.value ? `${data.value.chart.title} on the stand · Undaris` : 'Undaris')))
useBenchKeys(bench)
const sound = useFollow(bench)
const leave = () =>
  router.push({ name: 'bench', params: { id: bench.id.value }, query: router.currentRoute.value.query })
useCommands({ stand: () => leave(), leave: () => leave() })
const { readings, reading, about, symbolOf, noteOf, pickup, key } = useReadChords(bench)
</script>

<template>
  <div v-if="data && step && chord && run && window" class="stand">
    <header>
      <p class="where">
        bar <b>{{ step.bar + 1 }}</b> of {{ data.bars.length }}
        <span class="beats" aria-hidden="true"
          ><i
            v-for="b in data.bars[step.bar]?.beats"
            :key="b"
            :class="{ on: sound.inBar ? b === sound.inBar : b >= step.beat && b < step.beat + step.length }"
        /></span>
        <span v-if="data.bars[step.bar]?.section" class="section">{{ data.bars[step.bar]!.section }}</span>
        <span v-if="pickup && step.bar === 0" class="section"
          >pickup
          <template v-for="c in pickup.changes" :key="c.beat"
            ><MusicText :symbol="c.chord" /> on {{ c.beat }}
          </template></span
        >
      </p>
      <p class="title">
        {{ data.chart.title }}
        <small v-if="key" class="key"
          >sounds in <MusicText :symbol="data.chart.key" />, {{ data.chart.capo ? 'shapes' : 'read' }} in
          <MusicText :symbol="key"
        /></small>
      </p>
      <Select
        v-model="reading"
        :options="readings"
        option-label="name"
        option-value="id"
        input-id="stand-reading"
        aria-label="read in"
        :title="about"
      />
      <Button class="leave" label="Bench" icon="pi pi-times" variant="text" title="M or Escape" @click="leave" />
    </header>
    <div class="chords" role="status" :aria-live="sound.beat === undefined ? 'polite' : 'off'" data-swipe>
      <p class="now">
        <MusicText :symbol="symbolOf(step)" />
        <span v-if="targets[at]" class="aim"
          ><MarkBadge :degree="targets[at]!.degree" :size="72" /><MusicText :symbol="noteOf(step, targets[at]!)"
        /></span>
      </p>
      <p v-if="coming[0]" class="next">
        <small>{{ away(coming[0].beats, data.chart) }}</small>
        <MusicText :symbol="symbolOf(coming[0])" />
        <span v-if="nextTarget" class="aim"
          ><MarkBadge :degree="nextTarget.degree" :size="60" hollow /><MusicText
            :symbol="noteOf(coming[0], nextTarget)"
        /></span>
      </p>
    </div>
    <StandNeck
      class="neck"
      :instrument="data.instrument"
      :window="window"
      :notes="run.notes"
      :from="targets[at]"
      :to="nextTarget"
    />
    <nav>
      <Button icon="pi pi-arrow-left" aria-label="chord before" variant="outlined" @click="bench.go(at - 1)" />
      <Button icon="pi pi-arrow-right" aria-label="next chord" @click="bench.go(at + 1)" />
    </nav>
  </div>
  <EmptyPlace v-else-if="map.error.value" title="This chart cannot be shown" :text="map.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
  </EmptyPlace>
</template>

<style scoped>
.stand {
  min-height: 100%;
  display: grid;
  grid-template: auto auto minmax(0, 1fr) auto / minmax(0, 1fr);
  padding: 0.75rem 2rem 1rem;
}

header {
  display: flex;
  align-items: center;
  gap: 2rem;
}

.where {
  font-size: 2rem;
  display: flex;
  align-items: center;
  gap: 0.75rem;
}

.where b {
  font: 600 3rem/1 var(--font-display);
}

.beats {
  display: flex;
  gap: 0.4rem;
}

.beats i {
  width: 1.1rem;
  height: 1.1rem;
  border-radius: 50%;
  border: 3px solid var(--lit-rule);
}

.beats .on {
  background: var(--lit-rule);
}

.section {
  color: var(--third);
  font-weight: 600;
}

.title {
  margin-left: auto;
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.chords {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 2rem;
  flex-wrap: wrap;
}

.now,
.next {
  display: flex;
  align-items: center;
  gap: 1.5rem;
  font: 600 clamp(5rem, 15vw, 12rem) / 1.05 var(--font-display);
}

.next {
  font-size: clamp(3.5rem, 9vw, 7.5rem);
  color: var(--soft);
}

.next small {
  font: 400 1.75rem var(--font-text);
}

.aim {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  font: 700 2.75rem var(--font-text);
  color: var(--ink);
}

.neck {
  align-self: center;
  min-width: 0;
}

nav {
  display: flex;
  justify-content: space-between;
}

nav :deep(button) {
  width: 5rem;
  height: 3rem;
}

.key {
  white-space: nowrap;
}

/* Where there is less room everything keeps its order and its weight. */
@media (max-width: 68.75em) {
  .stand {
    padding: 0.4rem 0.75rem 0.5rem;
  }

  header {
    flex-wrap: wrap;
    gap: 0.2rem 1rem;
  }

  .where {
    font-size: 1.25rem;
    flex-wrap: wrap;
    gap: 0 0.6rem;
  }

  .where b {
    font-size: 2rem;
  }

  .title {
    order: 1;
    flex: 1 0 100%;
    margin: 0;
  }

  header :deep(.p-select) {
    margin-left: auto;
    min-width: 0;
    max-width: 40vw;
  }

  .chords {
    gap: 0 1.5rem;
  }

  .now,
  .next {
    flex-wrap: wrap;
    gap: 0 1rem;
    font-size: clamp(3.75rem, 17vw, 9rem);
  }

  .next {
    font-size: clamp(2.5rem, 10vw, 5.5rem);
  }

  .next small {
    font-size: 1.1rem;
  }

  .aim {
    font-size: 1.75rem;
  }

  .aim :deep(svg) {
    width: 2.5rem;
    height: 2.5rem;
  }
}

@media (max-width: 35em) {
  .beats i {
    width: 0.8rem;
    height: 0.8rem;
  }

  .title {
    display: none;
  }

  header,
  .where {
    gap: 0 0.4rem;
  }

  .leave :deep(.p-button-label) {
    position: absolute;
    clip-path: inset(50%);
  }
}
</style>
