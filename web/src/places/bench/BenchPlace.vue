<script setup lang="ts">
import { spanOf } from '../../neck/region'
import { useTitle } from '@vueuse/core'
import { computed, defineAsyncComponent, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import type { Place } from '../../api/client'
import MarkLegend from '../../music/MarkLegend.vue'
import MusicText from '../../music/MusicText.vue'
import NeckDrawing from '../../neck/NeckDrawing.vue'
import NeckLayers from '../../neck/NeckLayers.vue'
import FormSheet from '../../sheet/FormSheet.vue'
import FoldOnNarrow from '../../shell/FoldOnNarrow.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import { useAddress } from '../../shell/useAddress'
import { againSoon, later } from '../../shell/later'
import { throughHistory, useCommands } from '../../shell/useCommands'
import WaveDrawing from '../../wave/WaveDrawing.vue'
import BenchTools from './BenchTools.vue'
import BlendCard from './BlendCard.vue'
import CrossingCard from './CrossingCard.vue'
import RunCard from './RunCard.vue'
import ThreadBar from './ThreadBar.vue'
import { useBench } from './useBench'
import { useBand } from '../../band/useBand'
import { useBenchKeys } from './useBenchKeys'
import { useDeeds } from './useDeeds'
import { useFollow } from './useFollow'
import { useHearing } from './useHearing'
import { useGrip } from './useGrip'
import { useLeading } from './useLeading'
import { useOther } from './useOther'
import { useNeckView } from './useNeckView'
import { usePlan } from './usePlan'
import { usePointing } from './usePointing'
import { useWords } from './useWords'

const SoundsIn = later(() => import('./SoundsIn.vue'))
const NeckPalette = later(() => import('../../neck/NeckPalette.vue'))
const PictureButton = later(() => import('../../drawing/PictureButton.vue'))
const LeadingCard = later(() => import('./LeadingCard.vue'))
// There is nothing to draw before it.
const FirstEvening = defineAsyncComponent({ loader: () => import('../../ways/FirstEvening.vue'), onError: againSoon })
const OtherCard = later(() => import('./OtherCard.vue'))

const address = useAddress()
const bench = useBench()
const {
  data,
  steps,
  at,
  step,
  chord,
  coming,
  window,
  own,
  run,
  here,
  moves,
  targets,
  nextStep,
  nextTarget,
  map,
  charts,
} = bench
const plan = usePlan(bench)
const router = useRouter()
useTitle(computed(() => (data.value ? `${data.value.chart.title} · Undaris` : 'Undaris')))

const leading = useLeading(bench, address)
const other = useOther(bench, address)
const { labelOf, labelNext, tones, spots, arrivals, ghosts, shape, blend, describe } = useNeckView(bench, other)
const card = address.oneOf('card', ['chord', 'leading', 'others'])
const grip = useGrip(bench)
const { lit, litPlaces, bendTo, bent, reading, readOne } = usePointing(bench, blend)

const neck = useTemplateRef<InstanceType<typeof NeckDrawing>>('neck')
const band = useBand()
const words = useWords(bench, plan, grip, blend)
const { aim, turnTarget, turnPalette, boxes, boxByHand, loopTo, loopBars, loopChange, land, pick } = useDeeds(
  bench,
  plan,
  blend,
)
/** The Atlas opens in the region that the Bench is in, where it is not one of the positions. */
const atlas = computed(() => (own.value ? { own: address.read('own'), on: address.read('on') || undefined } : {}))
/** A place that is pressed is asked about; with voice leading open the hand stands there. */
function ask(at: Place) {
  if (leading.open.value) void leading.stand(at)
  void readOne(at)
}
const sound = useFollow(bench)
const hearing = useHearing(bench, readOne)
useBenchKeys(bench)
const back = throughHistory(plan)
useCommands({
  palette: turnPalette,
  target: turnTarget,
  ...back,
  takeBack: back.undo,
  strum: grip.strum,
  arrivals: () => bench.dim('arrivals'),
  bends: () => bench.dim('bends'),
  stand: () => router.push({ name: 'stand', params: { id: bench.id.value }, query: router.currentRoute.value.query }),
})
</script>

<template>
  <div
    v-if="data && step && chord && run && window && here && blend && words"
    class="bench"
    :style="{ '--sheet': `${(data.bars.length > 12 ? 13.2 : 11.8) + (data.pickup ? 1.9 : 0)}rem` }"
  >
    <header>
      <h1>{{ data.chart.title }}</h1>
      <p class="meta">
        <MusicText :symbol="data.chart.key" /> · {{ data.chart.bars }} bars · {{ data.chart.feelName }} ·
        <span :aria-label="`${data.chart.tempo} beats a minute`">♩ {{ data.chart.tempo }}</span>
      </p>
      <RouterLink class="to-stand" :to="{ name: 'stand', params: { id: data.chart.id }, query: $route.query }"
        >Music stand</RouterLink
      >
      <FoldOnNarrow name="More">
        <SoundsIn :chart="data.chart" :instrument="data.instrument" />
        <p v-if="data.chart.remarks" class="remarks" :title="data.chart.remarks">{{ data.chart.remarks }}</p>
        <MarkLegend class="legend" short />
        <nav class="links">
          <RouterLink :to="{ name: 'atlas', params: { id: data.chart.id }, query: atlas }">Atlas</RouterLink>
          <RouterLink
            :to="{
              name: 'paper',
              params: { id: data.chart.id },
              query: { frets: spanOf(window), step: at },
            }"
            >Paper</RouterLink
          >
          <RouterLink :to="{ name: 'edit', params: { id: data.chart.id } }">Edit</RouterLink>
          <PictureButton small :of="() => neck?.$el" :title="`${data.chart.title}, ${chord.symbol} on the neck`" />
        </nav>
      </FoldOnNarrow>
    </header>
    <FormSheet
      class="form"
      :bars="data.bars"
      :chords="data.chords"
      :pickup="data.pickup"
      :at="step"
      :next="coming[0]"
      :targets="targets"
      :boxes="boxes"
      :sound="sound"
      @go="bench.goTo"
      @loop="loopTo"
      @span="loopBars"
    />
    <CrossingCard
      class="ahead"
      :map="data"
      v-bind="words.crossing"
      :playing="band.playing"
      @light="lit = $event"
      @target="aim"
      @free="plan.pin(nextStep)"
      @hear="hearing.cross"
      @further="card = 'leading'"
      @land="land()"
      @loop="loopChange"
    />
    <BenchTools class="tools" :bench="bench" />
    <NeckDrawing
      ref="neck"
      class="neck"
      :instrument="data.instrument"
      :window="window"
      :spots="spots"
      :shape="shape"
      :ghosts="ghosts"
      :describe="describe"
      :faded="bench.dimmed.value.has('tones')"
      @window="(low, high) => bench.setOwn(low, high)"
      @place="ask"
      @press="hearing.press"
    >
      <template #under="{ g, radius, shown }">
        <NeckPalette
          :g="g"
          :radius="radius"
          :shown="shown"
          :window="window"
          :blend="blend"
          :marked="[...tones, ...arrivals]"
          :label="labelOf"
          :box="boxByHand ?? blend.box"
          :faded="bench.dimmed.value.has('palette')"
        />
        <!-- Under the marks, so that it covers none beside it. -->
        <circle
          v-if="nextTarget && shown(nextTarget) && !bench.dimmed.value.has('arrivals')"
          class="aim"
          :cx="g.fret(nextTarget.fret)"
          :cy="g.string(nextTarget.string)"
          :r="radius(nextTarget.fret) + 5"
        />
      </template>
      <template #over="{ g, radius, shown }">
        <NeckLayers
          :g="g"
          :radius="radius"
          :shown="shown"
          :window="window"
          :tones="tones"
          :arrivals="arrivals"
          :moves="moves"
          :label="labelNext"
          :from="targets[at]"
          :to="nextTarget"
          :lit="lit.length ? lit : leading.standing.value"
          :bent="bent"
          :slides="blend.slides"
          :dimmed="bench.dimmed.value"
          @target="aim"
        />
      </template>
    </NeckDrawing>
    <LeadingCard
      v-if="card === 'leading'"
      class="wide"
      :leading="leading"
      @light="lit = $event"
      @close="card = 'chord'"
    />
    <OtherCard
      v-else-if="card === 'others'"
      class="wide"
      :chord="chord"
      :music-key="data.chart.key"
      :other="other"
      @close="card = 'chord'"
    />
    <section v-if="card === 'chord'" class="below">
      <FoldOnNarrow name="Wave">
        <ThreadBar
          :bench="bench"
          :plan="plan"
          :heard="band.threadHeard"
          @hear="hearing.thread"
          @land="land('land', true)"
        />
        <WaveDrawing
          :map="data"
          :steps="steps"
          :at="at"
          :targets="targets"
          :runs="here.runs"
          :label="labelNext"
          :beat="sound.beat"
          @go="bench.go"
          @pin="plan.pin"
          @span="loopBars"
        />
      </FoldOnNarrow>
    </section>
    <div v-if="card === 'chord'" class="cards">
      <FoldOnNarrow name="Run">
        <RunCard
          v-bind="words.run"
          :heard="hearing.heard.value"
          @pick="pick"
          @hold="hearing.rest"
          @hear="hearing.walk"
          @go="bench.setPosition"
          @others="card = 'others'"
          @land="land('tones')"
        />
      </FoldOnNarrow>
      <FoldOnNarrow name="Blend">
        <BlendCard
          v-bind="words.blend"
          :palette="plan.plan.value.palette || 'minor-pentatonic'"
          :by-hand="boxByHand"
          :place="reading"
          @box="(b) => plan.turnBox(at, b)"
          @palette="(palette) => plan.set({ palette })"
          @light="litPlaces"
          @bends="bendTo = $event"
          @land="land"
          @close="reading = undefined"
          @hear="hearing.rest"
        />
      </FoldOnNarrow>
    </div>
  </div>
  <EmptyPlace v-else-if="map.error.value" title="This chart cannot be shown" :text="map.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
    <Button v-if="own" label="Back to positions" variant="outlined" @click="bench.leaveOwn()" />
  </EmptyPlace>
  <FirstEvening v-else-if="charts.data.value?.length === 0" />
  <EmptyPlace v-else-if="charts.error.value" title="No answer" :text="charts.error.value.message" />
</template>

<style scoped>
.bench {
  display: grid;
  grid-template:
    'head head' auto
    'form ahead' var(--sheet)
    'tools tools' auto
    'neck neck' auto
    'below cards' auto / minmax(0, 1fr) 25rem;
  gap: 0.25rem 1.5rem;
  padding: 0.15rem 1.25rem 0;
  align-content: start;
}

header {
  grid-area: head;
  display: flex;
  align-items: baseline;
  gap: 1rem;
  min-width: 0;
}

h1 {
  font-size: 1.625rem;
  flex: none;
  max-width: min(24rem, 100%);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.meta {
  flex: none;
  color: var(--soft);
  white-space: nowrap;
}

.remarks {
  flex: 0 1 16rem;
  min-width: 4rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-style: italic;
}

.legend {
  flex: 1 1 0;
  min-width: 0;
  height: 1.7rem;
  overflow: hidden;
  flex-wrap: wrap;
  justify-content: flex-end;
}

.to-stand {
  margin-right: -1rem;
}

/* The key, the tempo and the feel are told whole; what the shapes mean is known after a while, and goes mark by mark. */
@media (width < 88.75em) {
  .legend {
    gap: 0.2rem 0.5rem;
    font-size: 0.9rem;
  }
}

.links {
  display: flex;
  white-space: nowrap;
}

.links,
.to-stand {
  order: 1;
}

.to-stand,
.links a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 0.75rem;
  text-underline-offset: 4px;
}

.form {
  grid-area: form;
}

.ahead {
  grid-area: ahead;
}

.tools {
  grid-area: tools;
}

.neck {
  grid-area: neck;
}

.aim {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 4;
}

.below {
  grid-area: below;
  min-width: 0;
}

.wide {
  grid-row: 5;
  grid-column: 1 / -1;
  min-width: 0;
}

.cards {
  grid-area: cards;
  display: grid;
  align-content: start;
  min-width: 0;
}

/* A low screen has the three beside each other, so that the strip covers none; a high one gives its room to what is played from. */
@media (min-width: 75em) and (max-height: 56.25em) {
  .bench {
    grid-template-areas: 'head head head head' 'form form ahead ahead' 'tools tools tools tools' 'neck neck neck neck' 'below run run cards';
    grid-template-columns: minmax(0, 1fr) 16.75rem 2.5rem 22.5rem;
    grid-template-rows: auto var(--sheet) auto auto minmax(9rem, 1fr);
    column-gap: 1.25rem;
    height: calc(100vh - 3.5rem); /* the strip's */
  }

  .below,
  .wide,
  .cards :deep(.run-card),
  .cards :deep(.blend) {
    min-height: 0;
    overflow-y: auto;
    scrollbar-width: thin;
  }

  .cards {
    display: contents;
  }

  .cards :deep(.run-card) {
    grid-area: run;
  }

  .cards :deep(.blend) {
    grid-area: cards;
  }
}

@media (min-height: 62.5em) {
  .bench {
    --sheet: clamp(10.5rem, 21vh, 19rem) !important;
  }
}

@media (max-width: 56.25em) {
  .bench {
    grid-template: none;
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'head' 'ahead' 'form' 'tools' 'neck' 'cards' 'below';
    padding-inline: 0.75rem;
  }

  header {
    flex-wrap: wrap;
    gap: 0 1rem;
  }

  .legend {
    flex: auto;
    margin-left: 0;
  }

  .wide {
    grid-area: cards;
  }

  .links {
    margin-left: -0.75rem;
  }
}

/* On the music stand: the chord and the neck first, then the sheet, and what moves; the rest is folded. */
@media (max-width: 43.75em) {
  .bench {
    grid-template-areas: 'head' 'chord' 'neck' 'where' 'form' 'moves' 'tools' 'cards' 'below';
    gap: 0.4rem;
  }

  header {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 0.5rem;
  }

  .to-stand,
  .links {
    order: 0;
  }

  header :deep(.fold) {
    display: contents;
  }

  .sounds,
  .remarks,
  .legend,
  .links {
    grid-column: 1 / -1;
    white-space: normal;
    height: auto;
  }

  h1 {
    grid-column: 1;
    max-width: none;
    white-space: normal;
    font-size: 1.375rem;
  }

  .to-stand {
    grid-area: 1 / 2;
    margin: 0;
  }

  .legend {
    justify-content: start;
  }

  .meta {
    grid-area: 2 / 1;
    align-self: center;
    white-space: normal;
  }

  header :deep(.head) {
    grid-area: 2 / 2;
    padding-inline: 0.75rem;
    font: inherit;
  }

  .neck {
    margin-inline: -0.75rem;
    width: auto;
  }
}
</style>
