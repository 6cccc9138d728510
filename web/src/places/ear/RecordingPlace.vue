<script setup lang="ts">
/* One recording: its whole, the stretch in hand with what is heard in it, the neck, and what its player says to each note. */
import { useTitle } from '@vueuse/core'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Select from 'primevue/select'
import { fileOf } from '../../api/recordings'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import HistoryButtons from '../../shell/HistoryButtons.vue'
import SaveWords from '../../shell/SaveWords.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import TitleField from '../../shell/TitleField.vue'
import LickDialog from '../../making/LickDialog.vue'
import { useAddress } from '../../shell/useAddress'
import { useCommand } from '../../shell/useCommands'
import { clock, lasting } from '../../recording/inHand'
import BeatsCard from './BeatsCard.vue'
import EarNeck from './EarNeck.vue'
import FileMissing from './FileMissing.vue'
import NoteByEarCard from './NoteByEarCard.vue'
import PartChoice from './PartChoice.vue'
import RecordFoot from './RecordFoot.vue'
import StretchRoll from './StretchRoll.vue'
import TheMarkers from './TheMarkers.vue'
import ThePicture from './ThePicture.vue'
import WholeWave from './WholeWave.vue'
import { useAgainst } from './useAgainst'
import { useByEar } from './useByEar'
import { useEarCommands } from './useEarCommands'
import { useMaking } from './useMaking'
import { useMeasured } from './useMeasured'
import { useMyTurn } from './useMyTurn'
import { useRecordingSound } from './useRecordingSound'
import { useRecordingWork } from './useRecordingWork'
import { useRendered } from './useRendered'
import { useTimeSpent } from './useTimeSpent'

const { id } = useAddress()
const work = useRecordingWork(id)
const stored = work.stored.data
const rendered = useRendered(work.stored, work.changes)
const url = computed(() => (stored.value?.bytes ? fileOf(stored.value) : undefined))
const sound = useRecordingSound(url, work.hearing)
const measured = useMeasured(work, sound)
const ear = useByEar(work, sound)
const against = useAgainst(work, sound)
const making = useMaking(work, id)
const mine = useMyTurn(work, sound, ear)
useTimeSpent(work, sound)
const panes = [
  { id: 'notes', name: 'Notes' },
  { id: 'beats', name: 'Beats, chords' },
  { id: 'markers', name: 'Markers' },
]
/** What is to be heard, and how well it is (docs/by-ear.md has the figures). */
const kinds = [
  { id: 'mixed', name: 'with others', well: 'Of a lead with a band beneath it about four of five notes are right.' },
  { id: 'ringing', name: 'strings that ring', well: 'Of strings that ring into each other nine of ten notes are right.' },
  { id: 'alone', name: 'a guitar alone', well: 'Of a guitar alone about nineteen of twenty notes are right.' },
] // prettier-ignore
const well = computed(() => kinds.find((k) => k.id === ear.what.value)?.well)
const pane = ref('notes')
const commands = useEarCommands(work, sound, measured, ear, against, pane)
useTitle(computed(() => `${work.body.value?.title ?? 'By ear'} · Undaris`))
const listen = useCommand('listen')
const settleAll = useCommand('settleAll')
const tempo = computed(() => {
  const a = work.hearing.value?.anchors ?? []
  return a.length > 1 ? (60 * (a.at(-1)!.beat - a[0]!.beat)) / (a.at(-1)!.at - a[0]!.at) : undefined
})
const about = computed(() => {
  const h = work.hearing.value
  const first = h?.anchors.length ? commands.barOne() : undefined
  return [
    sound.sound.value?.seconds.value && lasting(sound.sound.value.seconds.value),
    tempo.value && `${Math.round(tempo.value)} beats a minute`,
    first !== undefined && `bar 1 at ${clock(Math.max(0, first))}`,
    h?.cents && `${h.cents > 0 ? '+' : '−'}${Math.abs(h.cents)} cents`,
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <div v-if="work.body.value && work.hearing.value" class="place">
    <div class="upper">
      <header>
        <TitleField
          :title="work.body.value.title"
          label="title of the recording"
          :longest="120"
          @change="(title) => work.record.change('title', { title })"
        />
        <p class="meta" :title="about">{{ about }}</p>
        <SaveWords :state="work.record.state.value" :why="work.record.why.value" />
        <b v-if="work.notes.value.length">{{ ear.settled.value }} of {{ work.notes.value.length }} settled</b>
        <HistoryButtons />
        <Button
          label="Play along"
          size="small"
          variant="outlined"
          :title="
            making.canPlay.value
              ? 'it plays its chart in the band’s place, and you are heard over it'
              : 'say first which chart it plays, or make one of its chords'
          "
          @click="making.canPlay.value ? making.along() : (pane = 'beats')"
        />
        <Button
          label="Make a lick"
          size="small"
          variant="outlined"
          :disabled="!work.heard.value?.line"
          @click="making.lick()"
        />
        <Button label="Make a line" size="small" :disabled="!work.heard.value?.line" @click="making.line()" />
      </header>
      <p
        v-for="t in [
          work.record.trouble.value,
          sound.sound.value?.trouble.value,
          work.failed.value?.message,
          making.trouble.value,
          rendered.trouble.value,
          against.trouble.value,
          mine.trouble.value,
        ].filter(Boolean)"
        :key="t"
        class="trouble"
        role="alert"
      >
        {{ t }}
      </p>
      <p v-if="rendered.doing.value" role="status" class="hint">
        The band plays it onto a tape … {{ Math.round(rendered.part() * 100) }} %
      </p>
      <FileMissing v-else-if="!url" :id="id" :changes="work.changes" @kept="work.stored.refetch()" />
      <PartChoice v-if="sound.sound.value" :sound="sound.sound.value" />
      <template v-if="sound.sound.value && !sound.sound.value.long.value">
        <WholeWave
          :sound="sound.sound.value"
          :hearing="work.hearing.value"
          :stretch="work.stretch.value"
          :at="sound.at.value"
          @take="commands.take"
          @seek="sound.seek"
          @marker="commands.toMarker"
        />
        <StretchRoll
          v-if="work.stretch.value"
          :sound="sound.sound.value"
          :hearing="work.hearing.value"
          :stretch="work.stretch.value"
          :notes="work.notes.value"
          :heard="work.heard.value"
          :chords="measured.chords.value"
          :compass="ear.compass.value"
          :guessed="work.onGuess.value"
          :chosen="ear.chosen.value"
          :at="sound.at.value"
          :mine="mine.turn.value?.mine"
          @choose="(n) => (ear.chosen.value = n)"
          @move="ear.move"
          @write="ear.write"
          @seek="sound.seek"
        />
        <p v-else class="hint">Drag over the sound above to take a stretch in hand.</p>
      </template>
      <div class="lower">
        <div class="left">
          <ThePicture v-if="sound.sound.value?.picture.value && url" :url="url" :sound="sound" />
          <EarNeck
            v-if="work.heard.value"
            :heard="work.heard.value"
            :hearing="work.hearing.value"
            :note="ear.note.value"
            @place="(string, fret) => ear.change('its place', { string, fret })"
            @choose="(n) => (ear.chosen.value = n)"
          />
        </div>
        <div class="cards">
          <div class="heads">
            <SegmentedChoice v-model="pane" :options="panes" label="what is shown" />
            <template v-if="pane === 'notes' && work.stretch.value">
              <Button
                v-bind="listen"
                :label="
                  ear.hearing.value
                    ? `Listening … ${Math.round(ear.part.value * 100)} %`
                    : work.notes.value.length
                      ? 'Hear it again'
                      : 'Hear it'
                "
                :disabled="ear.hearing.value || !sound.sound.value?.whole.value"
              />
              <Button
                v-if="ear.sure.value"
                v-bind="settleAll"
                :label="`Settle ${ear.sure.value} sure`"
                variant="outlined"
              />
              <Select
                v-model="ear.what.value"
                :options="kinds"
                option-label="name"
                option-value="id"
                aria-label="what plays there"
                class="what"
              />
            </template>
          </div>
          <p v-if="sound.modes.turn && (mine.turn.value || mine.ear.trouble)" class="answered" role="status">
            <b>Your turn</b> {{ mine.turn.value?.says ?? mine.ear.trouble }}
          </p>
          <template v-if="pane === 'notes'">
            <NoteByEarCard
              v-if="ear.note.value"
              :note="ear.note.value"
              :heard="work.heard.value"
              @beside="commands.beside"
              @step="ear.step"
              @bend="ear.bend"
              @shift="ear.shift"
            />
            <p v-else-if="ear.trouble.value" class="trouble" role="alert">{{ ear.trouble.value }}</p>
            <p v-else-if="work.notes.value.length" class="hint">
              Press a note: it is heard, and you say whether it is right. {{ work.heard.value?.why }}
            </p>
            <p v-else class="hint">
              {{
                sound.sound.value?.whole.value
                  ? 'Hear it: its notes are proposed, as guesses. Or press twice on a row to write one.'
                  : sound.sound.value?.trouble.value
                    ? ''
                    : 'The recording is read …'
              }}
              {{ measured.doing.value }}
              <template v-if="work.stretch.value && sound.sound.value?.whole.value">{{ well }}</template>
            </p>
          </template>
          <BeatsCard
            v-else-if="pane === 'beats'"
            :work="work"
            :measured="measured"
            :sound="sound"
            :taps="commands.taps.value"
            @chart="making.chart(measured.chords.value?.keys[0]?.key)"
          />
          <TheMarkers v-else :work="work" :sound="sound" />
        </div>
      </div>
    </div>
    <RecordFoot
      :sound="sound"
      :tempo="tempo"
      :cents="work.hearing.value.cents"
      :ways="work.heard.value?.line ? against.ways : undefined"
    />
    <LickDialog v-model="making.keeping.value" :from="making.kept.value" />
  </div>
  <EmptyPlace
    v-else-if="work.stored.error.value"
    title="This recording cannot be shown"
    :text="work.stored.error.value.message"
  >
    <Button as="router-link" :to="{ name: 'recordings' }" label="All recordings" />
  </EmptyPlace>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 100vh;
}

.upper {
  padding: 0.6rem 1.25rem 0.75rem;
  display: grid;
  gap: 0.5rem;
  align-content: start;
  min-width: 0;
}

header :deep(.name) {
  max-width: 30rem;
  font-size: 1.5rem;
}

header {
  display: flex;
  align-items: center;
  gap: 0.3rem 0.9rem;
}

.meta {
  flex: 1 1 8rem;
  min-width: 0;
  line-height: 1.25;
  font-size: var(--text-s);
}

.meta,
.hint {
  color: var(--soft);
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

.answered {
  padding: 0.35rem 0.75rem;
  background: var(--lit);
  border-radius: var(--round);
}

.lower {
  display: grid;
  grid-template-columns: minmax(0, 25rem) minmax(0, 1fr);
  gap: 1.5rem;
}

.left {
  min-width: 0;
}

.cards {
  display: grid;
  gap: 0.6rem;
  align-content: start;
  min-width: 0;
}

.heads .what {
  width: 11rem;
}

.heads {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
  align-items: center;
}

@media (max-width: 56.25em) {
  header {
    flex-wrap: wrap;
  }

  .meta {
    flex-basis: 100%;
    white-space: normal;
  }

  .lower {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
