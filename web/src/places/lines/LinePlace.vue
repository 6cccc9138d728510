<script setup lang="ts">
import OnRecord from '../../music/OnRecord.vue'
/* One line on staff and tablature: written, checked, mended, heard, printed. */
import { quarter } from '../../api/facts'
import { useTitle, useWindowSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import Menu from 'primevue/menu'
import { useTones } from '../../api/kept'
import { useCatalogue } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import { chordAt, levels, plainScore } from '../../document/level'
import LineWave from '../../wave/LineWave.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import HistoryButtons from '../../shell/HistoryButtons.vue'
import SaveWords from '../../shell/SaveWords.vue'
import TitleField from '../../shell/TitleField.vue'
import { throughHistory, useCommand, useCommands } from '../../shell/useCommands'
import BlendBar from './BlendBar.vue'
import PressNeck from '../../neck/PressNeck.vue'
import { stringsOf, told } from '../../neck/region'
import LineReport from './LineReport.vue'
import NoteList from './NoteList.vue'
import NotePanel from './NotePanel.vue'
import WorkPanel from './WorkPanel.vue'
import GuessBar from './GuessBar.vue'
import InstrumentBar from './InstrumentBar.vue'
import KeyDialog from './KeyDialog.vue'
import LineTabs from './LineTabs.vue'
import { panels } from './panels'
import { useEntry } from './useEntry'
import { useMidiIn } from './useMidiIn'
import PartsBar from './PartsBar.vue'
import StrainNote from './StrainNote.vue'
import TakeBar from './TakeBar.vue'
import { useHearLine } from './useHearLine'
import { useKeptLine } from './useKeptLine'
import { useLineMenu } from './useLineMenu'
import { useParts } from './useParts'
import { useStrain } from './useStrain'
import { useTaken } from './useTaken'
import EarButton from '../../listen/EarButton.vue'
import PressButton from '../../shell/PressButton.vue'
import { barsOf, metreOf } from '../../music/metre'
import { useAddress } from '../../shell/useAddress'

const address = useAddress()
const { id } = address
const { state, error } = useKeptLine(id, () => entry.rest(study.value?.score.notes[0]?.id))
const { study, line } = state
const tones = useTones(
  computed(() => study.value?.score),
  line,
)
const frame = computed(() => (study.value ? barsOf(study.value.score) : { beats: 4, bars: 0 }))
const bars = computed(() => frame.value.bars)
const parts = useParts(id, line, study)
const { mine, take, hear, land, clock, sound, reel } = useHearLine(parts.practised, frame, parts.from)
useTitle(computed(() => (line.value ? `${line.value.title} · Undaris` : 'Line · Undaris')))

const { climbing, keeping, rungs, verdicts } = useTaken(id, state, take, mine, reel.sound, parts)

const catalogue = useCatalogue()
const entry = useEntry(
  state,
  sound,
  computed(() => catalogue.data.value?.ways ?? []),
)
/* The line without its ornaments, where that is asked for. */
const level = address.oneOf(
  'level',
  levels.map((l) => l.id),
)
const shown = computed(
  () => study.value && (level.value === 'plain' ? plainScore(study.value.score) : study.value.score),
)
const strain = useStrain(study, parts.practised, level, mine, parts.on)
const fingers = ref(false)
const rekeying = ref(false)
const locked = computed(() => new Set(line.value?.locked ?? []))
const chordHere = computed(() => study.value && chordAt(study.value.score, entry.tick.value))

function lock(bar: number) {
  const now = line.value?.locked ?? []
  void state.change({ locked: now.includes(bar) ? now.filter((b) => b !== bar) : [...now, bar].sort((a, b) => a - b) })
}

const files = ref<InstanceType<typeof Menu>>()
/* What the core can do comes when it is asked for; which panel stands open is in the address. */
const panel = address.oneOf('panel', ['', 'notes', ...panels.map((p) => p.id)])
const panelName = computed(() => panels.find((p) => p.id === panel.value)?.name ?? 'Notes')
const midi = useMidiIn(
  entry,
  () => {
    const neck = tones.data.value?.instrument
    return neck && line.value && { neck, low: line.value.low, high: line.value.high }
  },
  take,
)
const downloads = useLineMenu({
  panel,
  id,
  plain: computed(() => level.value === 'plain'),
  midi,
  take,
  climbing,
  rungs,
  fingers,
  parts,
})
watch(take.trouble, (t) => t && state.refuse(new Error(t)))
watch(midi.trouble, (t) => t && state.refuse(new Error(t)))
useCommands(throughHistory(state))
useCommands({ ...entry.deeds, hear: () => hear() }, { within: '.grid', others: entry.others })
const hearing = useCommand('hear')
/* A wide screen has the music larger, not more empty. */
const screen = useWindowSize()
const size = computed(() => (screen.width.value > 1600 && screen.height.value > 950 ? 0.95 : 0.72))
</script>

<template>
  <div v-if="line && study" class="line">
    <header>
      <TitleField
        :title="line.title"
        label="title of the line"
        :longest="160"
        @change="(title) => state.change({ title })"
      />
      <p class="meta">
        <PressButton class="key" title="another key, other chords, tempo, feel" @click="rekeying = true">
          <MusicText :symbol="line.key" /> · {{ bars }} {{ bars === 1 ? 'bar' : 'bars' }} · {{ line.tempo }}
          <i class="pi pi-pencil" />
        </PressButton>
        · frets {{ told({ low: line.low, high: line.high, strings: stringsOf(line.strings ?? '') }) }} ·
        {{ midi.on.value ? 'hears MIDI · ' : '' }}
        <SaveWords :state="state.state.value" />
        <span v-if="line.source"> · from {{ line.source }}</span>
        <OnRecord v-if="line.heard" :heard="line.heard" />
        <span v-if="line.remark" class="remark" :title="line.remark"> · {{ line.remark }}</span>
      </p>
      <span class="space" />
      <HistoryButtons />
      <LineTabs v-model="panel" :report="study.report" />
      <Button :icon="mine ? 'pi pi-stop' : 'pi pi-volume-up'" aria-label="Hear" variant="outlined" v-bind="hearing" />
      <EarButton :instrument="tones.data.value?.instrument" />
      <Button
        icon="pi pi-ellipsis-v"
        aria-label="Export and more"
        title="files, paper, fingers"
        variant="outlined"
        @click="files?.toggle($event)"
      />
      <Menu ref="files" :model="downloads" popup />
    </header>
    <KeyDialog v-model="rekeying" :state="state" />
    <p v-if="state.trouble.value" class="trouble" role="alert">{{ state.trouble.value }}</p>
    <ul v-if="study.said.length" class="said">
      <li v-for="s in study.said" :key="s">{{ s }}.</li>
    </ul>
    <InstrumentBar :state="state" />
    <GuessBar :state="state" />
    <PartsBar :parts="parts" />
    <StrainNote v-model="level" :most="strain.most.value" :drill="!!study.report.strain" :notes="line.notes" />
    <TakeBar
      v-if="take.take.value"
      :take="take.take.value"
      :keeps="take.whole.value?.written && (keeping.of.value === take.whole.value ? 'kept' : 'can')"
      @close="take.clear"
      @keep="keeping.keep"
    />
    <LineWave
      v-if="tones.data.value"
      class="wave"
      :score="study.score"
      :line="line"
      :tones="tones.data.value"
      :verdicts="verdicts"
      :clock="clock"
      :chosen="entry.note.value?.id"
      @pick="entry.choose"
    />
    <div
      class="grid"
      :class="{ wide: !panel }"
      tabindex="0"
      role="application"
      aria-label="tablature: arrows move, figures write a fret, letters say how it is played"
    >
      <StaffDrawing
        :score="shown!"
        :size="size"
        close
        :chosen="entry.note.value?.id"
        :pen="{ tick: entry.tick.value, string: entry.string.value, open: !!entry.typed.value }"
        :ahead="state.ahead.value"
        :clock="clock"
        :fingers="fingers"
        :verdicts="verdicts"
        :locked="locked"
        @pick="entry.choose"
        @bar="lock"
        @place="(t, s) => ((entry.tick.value = t), (entry.string.value = s))"
      />
    </div>
    <aside v-if="panel" :id="`panel-${panel}`" role="tabpanel" :aria-label="panelName">
      <BlendBar v-if="panel === 'blend'" class="blend" :state="state" />
      <NoteList v-else-if="panel === 'notes'" :state="state" :chosen="entry.note.value?.id" @note="entry.choose" />
      <LineReport v-else-if="panel === 'landings'" :state="state" @note="entry.choose" />
      <WorkPanel
        v-else
        :state="state"
        :tab="panel"
        :instrument="tones.data.value?.instrument"
        :note="entry.note.value"
        :bar="Math.max(0, metreOf(frame).at(Math.floor(entry.tick.value / quarter)).bar) + 1"
      />
    </aside>
    <footer class="foot">
      <p v-if="!chordHere || chordHere === 'N.C.'" class="unchorded">
        Without chords there is nothing to land on.
        <Button label="Write chords under it" variant="outlined" @click="rekeying = true" />
      </p>
      <PressNeck
        v-if="tones.data.value"
        class="neck"
        label="the neck: press a place to write it"
        :instrument="tones.data.value.instrument"
        :low="line.low"
        :high="line.high"
        :marks="tones.data.value.chords.find((c) => c.symbol === chordHere)?.notes"
        :note="entry.note.value"
        @place="(s, f) => entry.put(f, s, true)"
      />
      <NotePanel :state="state" :entry="entry" :chord="chordHere" @land="(note) => parts.begin(note).then(land)" />
    </footer>
  </div>
  <EmptyPlace
    v-else-if="error || state.trouble.value"
    title="This line cannot be shown"
    :text="error?.message ?? state.trouble.value"
  >
    <Button as="router-link" :to="{ name: 'lines' }" label="All lines" />
  </EmptyPlace>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-content: start;
  gap: 0.25rem 1.25rem;
  padding: 0.4rem 1.25rem 0.25rem;
}

/* Where there is room beside each other the sheet takes the height that is left, so that the strip covers nothing of the note. */
@media (min-width: 56.3125em) {
  .line {
    height: calc(100vh - 3.5rem); /* the strip's */
    min-height: 34rem;
    grid-template-rows: repeat(9, auto) [sheet] minmax(15rem, 1fr) [foot] auto;
    row-gap: 0;
  }

  .line > * {
    margin-bottom: 0.2rem;
  }

  .grid,
  aside {
    grid-row: sheet;
    align-self: start;
    max-height: 100%;
  }

  .foot {
    grid-row: foot;
  }
}

header,
.trouble,
.said,
.guesses,
.instrument,
.wave,
.foot {
  grid-column: 1 / -1;
}

header {
  display: flex;
  align-items: center;
  gap: 0.4rem 0.3rem;
  flex-wrap: wrap;
}

h1 {
  font-size: 1.5rem;
}

.meta {
  color: var(--soft);
  white-space: nowrap;
}

.remark {
  display: inline-block;
  max-width: 16rem;
  overflow: hidden;
  text-overflow: ellipsis;
  vertical-align: bottom;
}

.space {
  flex: 1;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

.said {
  color: var(--soft);
}

.key {
  border: 0;
  border-bottom: 1px dashed var(--soft);
  background: none;
  padding: 0.2rem 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
}

.key i {
  font-size: 0.8em;
}

.unchorded {
  display: flex;
  align-items: center;
  gap: 1rem;
}

.grid {
  background: var(--raised);
  border: 1px solid var(--rule);
  padding: 0.1rem 0.5rem;
  min-height: 15rem;
  overflow-y: auto;
  min-width: 0;
}

.wide {
  grid-column: 1 / -1;
}

.grid :deep(.row) {
  margin-bottom: 0;
}

.grid:focus {
  outline: 3px solid var(--lit-rule);
}

aside {
  width: 21.5rem;
  overflow-y: auto;
}

.foot {
  display: grid;
  grid-template-columns: minmax(0, 25rem) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}

@media (max-width: 56.25em) {
  .line {
    grid-template-columns: minmax(0, 1fr);
    padding-inline: 0.75rem;
  }

  aside {
    width: auto;
  }

  .foot {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .line {
    display: block;
    height: auto;
    padding: 0;
  }

  header > :not(h1, .meta),
  .said,
  .state,
  .wave,
  .foot,
  aside {
    display: none;
  }

  .grid {
    border: 0;
    padding: 0;
    max-height: none;
    overflow: visible;
  }
}
</style>
