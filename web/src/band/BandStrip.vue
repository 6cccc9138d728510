<script setup lang="ts">
/* The transport at the foot of every place. */
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useToast } from 'primevue/usetoast'
import { useCharts } from '../api/queries'
import { metreOf } from '../music/metre'
import { useCommand, useCommands } from '../shell/useCommands'
import LoopChooser from './LoopChooser.vue'
import TempoField from './TempoField.vue'
import VolumeField from './VolumeField.vue'
import { useBand } from './useBand'
import GoOn from '../shell/GoOn.vue'
import PressButton from '../shell/PressButton.vue'
import { later, useOpener } from '../shell/later'
import { Popover } from '../shell/parts'

const WritingNote = later(() => import('./WritingNote.vue'))
const BandPanel = later(() => import('./BandPanel.vue'))

const band = useBand()
const route = useRoute()
const toast = useToast()
const charts = useCharts()
/* The chart of the place in view, or the one opened last; the number of a set, a lick or a line is none of a chart. */
const places = ['bench', 'stand', 'atlas', 'paper', 'edit', 'practice']
const chart = computed(() => {
  const all = charts.data.value
  const id = places.includes(String(route.name)) ? Number(route.params.id) : 0
  const named = all?.find((c) => c.id === id)
  const comes = charts.isFetching.value && id // it may be on a further page of the list
  return named ?? band.chart ?? (comes ? undefined : all?.[0])
})
watch(chart, (c) => c && band.take(c), { immediate: true })

const panel = ref<InstanceType<typeof Popover>>()
const open = useOpener(panel)
/* On a narrow screen what is set once waits behind a press. */
const unfolded = ref(false)
const from = () => band.here?.chord.from ?? 0
function toggle() {
  if (band.playing) band.stop()
  else if (band.status === 'loading') return
  else if (band.offered) void band.hear(band.offered)
  else void band.start(from())
}
const there = (deed: () => unknown) => ({ do: () => void deed(), can: () => !!(band.chart || band.offered) })
useCommands({
  play: {
    do: () => toggle(),
    can: () => !!(band.chart || band.offered),
    name: () => (band.playing ? 'stop' : 'play'),
  },
  slower: there(() => band.setTempo(band.tempo - 2)),
  faster: there(() => band.setTempo(band.tempo + 2)),
  end: { do: () => void band.end(), can: () => band.playing && !band.ending },
  half: there(() => band.half()),
  loop: there(() => band.turnLoop()),
  otherLoop: there(() => band.turnLoops()),
  missed: { do: () => band.missed(), can: () => band.playing },
})

const play = useCommand('play')
const end = useCommand('end')

/* The bars of what plays, which need not be the chart's. */
const metre = computed(() => {
  const a = band.audition
  return a ? metreOf({ ...a, bars: a.bars ?? 0 }) : metreOf(band.chart ?? { beats: 4, bars: 0 })
})
const where = computed(() => {
  const b = band.beat
  if (b === undefined) return undefined
  const { bar, beat } = metre.value.at(b)
  return { count: b < 0, bar: bar + 1, beat: beat + 1, of: metre.value.beatsOf(bar) }
})
const before = computed(() => {
  const beat = band.beat ?? 0
  return beat >= -band.pickup() ? 'pickup' : beat >= -band.intro() ? 'intro' : 'count-in'
})
const say = (text: string) => toast.add({ severity: 'secondary', summary: text, life: 6000 })
</script>

<template>
  <aside v-if="band.chart || band.offered" class="strip" :class="{ unfolded }" aria-label="band">
    <!-- It stands here once, in a row of its own so that it covers nothing, and can be read again under Help. -->
    <p v-if="!band.settings.cautioned && band.playing" class="caution" role="note">
      Loud practice harms hearing, from amplifiers and headphones alike: keep the level where talk is possible, and rest
      the ears every 20 to 25 minutes.
      <PressButton @click="band.settings.cautioned = true">Understood</PressButton>
    </p>
    <p v-if="band.trouble" class="trouble" role="alert">
      {{ band.trouble }}
      <PressButton aria-label="close this message" @click="band.trouble = ''">
        <i class="pi pi-times" />
      </PressButton>
    </p>
    <WritingNote />
    <PressButton
      class="play"
      :class="{ on: band.playing }"
      v-bind="play"
      :disabled="play.disabled || band.status === 'loading'"
    >
      <i class="pi" :class="band.playing ? 'pi-stop' : 'pi-play'" />
      <span>{{ band.playing ? 'Stop' : band.status === 'loading' ? 'Tuning up' : 'Play' }}</span>
    </PressButton>
    <div class="where" :aria-label="where ? undefined : 'what plays'">
      <progress v-if="band.status === 'loading'" :value="band.progress" max="1" aria-label="loading the instruments" />
      <template v-else-if="where">
        <b v-if="where.count">{{ before }}</b>
        <b v-else>bar {{ where.bar }}</b>
        <span class="beats" :data-beat="where.beat" aria-hidden="true"
          ><i v-for="n in where.of" :key="n" :class="{ on: n === where.beat }"
        /></span>
        <small v-if="band.ending">the last</small>
        <small v-else-if="!band.audition && !where.count">chorus {{ band.chorus + 1 }}</small>
      </template>
      <span v-else class="title">{{ band.offered?.title ?? band.chart?.title }}</span>
      <GoOn v-if="!band.playing && band.status !== 'loading'" />
      <small v-if="band.audition && band.playing" class="title">{{ band.audition.title }}</small>
      <small v-else-if="band.record" class="title" :title="`${band.record.title} plays in the band's place`">{{
        band.record.title
      }}</small>
    </div>
    <TempoField @said="say" />
    <PressButton
      class="fold"
      :aria-expanded="unfolded"
      :aria-label="`${unfolded ? 'less' : 'more'} of the band`"
      @click="unfolded = !unfolded"
      ><i class="pi" :class="unfolded ? 'pi-angle-down' : 'pi-angle-up'"
    /></PressButton>
    <div class="rest">
      <LoopChooser @said="say" />
      <div class="toggles">
        <PressButton v-if="band.playing" class="end" :aria-pressed="band.ending" v-bind="end">End</PressButton>
        <PressButton
          v-else
          :aria-pressed="band.settings.countIn"
          title="a bar of sticks first"
          @click="band.settings.countIn = !band.settings.countIn"
        >
          Count-in
        </PressButton>
        <PressButton
          :aria-pressed="band.settings.click"
          title="a click on every beat"
          @click="band.settings.click = !band.settings.click"
        >
          Click
        </PressButton>
      </div>
      <PressButton class="more" aria-haspopup="dialog" @click="open"> <i class="pi pi-users" />Band </PressButton>
      <VolumeField />
    </div>
    <Popover ref="panel" label="band"
      ><BandPanel><slot /></BandPanel
    ></Popover>
  </aside>
</template>

<style scoped>
.strip {
  position: sticky;
  bottom: 0;
  z-index: 5;
  grid-column: -2 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.25rem 0.7rem;
  padding: 0.25rem 1.25rem;
  background: var(--raised);
  border-top: 2px solid var(--ink);
}

.trouble {
  flex: 1 0 100%;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  color: var(--danger);
  font-weight: 600;
}

.caution {
  flex: 1 0 100%;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  margin: 0 -0.5rem;
  padding: 0.25rem 0.5rem;
  background: var(--lit);
  border-radius: var(--round);
}

.caution button {
  flex: none;
  min-height: var(--target);
  padding: 0 1rem;
  border: 2px solid var(--ink);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}

.trouble button {
  border: 0;
  background: none;
  color: inherit;
  width: var(--target);
  height: var(--target);
  cursor: pointer;
}

.play {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-width: 6.4rem;
  height: 2.75rem;
  padding: 0 1rem;
  border: 2px solid var(--ink);
  border-radius: 999px;
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
  cursor: pointer;
}

.play.on {
  background: var(--lit);
  color: var(--ink);
}

.where {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  flex: 1 1 8.5rem;
  min-width: 0;
}

.where b {
  font: 600 var(--text-l) var(--font-display);
  white-space: nowrap;
  min-width: 4.2rem;
}

.title {
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.where small {
  color: var(--soft);
  font-size: var(--text-s);
  white-space: nowrap;
}

progress {
  width: 10rem;
  accent-color: var(--lit-rule);
}

.beats {
  display: flex;
  gap: 0.35rem;
}

.beats i {
  width: 0.85rem;
  height: 0.85rem;
  border-radius: 50%;
  border: 2px solid var(--lit-rule);
}

.beats .on {
  background: var(--lit-rule);
}

.toggles {
  display: flex;
  gap: 0.4rem;
}

.toggles button,
.more {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  cursor: pointer;
}

.toggles .end {
  min-width: 5.6rem;
  justify-content: center;
}

.toggles [aria-pressed='true'] {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}

.rest {
  display: contents;
}

.fold {
  display: none;
}

@media (max-width: 56.25em) {
  .strip {
    padding: 0.6rem 0.75rem;
    gap: 0.25rem 0.5rem;
  }

  .where {
    flex: 1 1 4rem;
  }

  .fold {
    display: grid;
    place-items: center;
    width: var(--target);
    height: var(--target);
    border: 0;
    background: none;
    color: inherit;
    cursor: pointer;
  }

  .rest {
    display: none;
  }

  /* It opens upwards: play stays under the thumb. */
  .unfolded .rest {
    display: flex;
    flex: 1 0 100%;
    order: -1;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem;
    padding-bottom: 0.4rem;
  }
}

@media (max-width: 35em) {
  .play {
    min-width: 0;
    padding: 0 0.9rem;
  }

  .where {
    flex-wrap: wrap;
    gap: 0 0.4rem;
  }

  .where b {
    min-width: 3.4rem;
    font-size: 1.1rem;
  }

  .beats i {
    width: 0.6rem;
    height: 0.6rem;
  }

  .title,
  .where small {
    white-space: normal;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 3;
    overflow-wrap: anywhere;
    font-size: 0.875rem;
    line-height: 1.15;
  }

  .strip:not(.unfolded) :deep(.step) {
    display: none;
  }
}

@media (max-width: 22.5em) {
  .strip:not(.unfolded) :deep(.half) {
    display: none;
  }
}

@media print {
  .strip {
    display: none;
  }
}
</style>
