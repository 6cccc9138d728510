<script setup lang="ts">
/* One call at a time in very large type, the neck covered until asked; answered by name or on the neck, over the band if
   it plays. */
import { useTitle } from '@vueuse/core'
import { computed, defineAsyncComponent, watch } from 'vue'
import Button from 'primevue/button'
import { useCatalogue } from '../../api/queries'
import { useBand } from '../../band/useBand'
import MusicText from '../../music/MusicText.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import TickBox from '../../shell/TickBox.vue'
import { onStrings } from '../../neck/region'
import { useShown } from '../../together/shown'
import { useSummary } from '../../shell/summary'
import { useCommand, useCommands } from '../../shell/useCommands'
import AnswerKeys from './AnswerKeys.vue'
import CallChoice from './CallChoice.vue'
import CallNeck from './CallNeck.vue'
import CallStep from './CallStep.vue'
import { summed } from './outcomes'
import { useCalls, type By } from './useCalls'
import { useCallsNoted } from './useCallsNoted'
import { useCallStep } from './useCallStep'
import { useCallWish } from './useCallWish'
import { usePlayed } from './usePlayed'
import { usePractised } from './usePractised'
import { useRound } from './useRound'
import { useVoice } from './useVoice'
import EarButton from '../../listen/EarButton.vue'
import { useMidi } from '../../listen/useMidi'
import { useEar } from '../../listen/useEar'

const OneNote = defineAsyncComponent(() => import('../../notation/OneNote.vue'))
useTitle('Practice · Undaris')
const { address, charts, id, map, chart } = usePractised()
const instrument = computed(() => map.data.value?.instrument)

const catalogue = useCatalogue()
const band = useBand()
const choice = useCallWish(address, id, map.data, catalogue.data, () => band.tempo)
const by = address.oneOf<By>('by', ['name', 'neck', 'play'])
const { wish } = choice
const step = useCallStep(choice.step, by, catalogue.data)
const calls = useCalls(wish, by, step.step, Number(address.read('seed')) || undefined)
const { call, over } = calls
step.follow(calls.outcomes)
watch(
  () => (chart.value ? JSON.stringify(wish.value) : ''),
  (asked) => asked && calls.anew(),
  { immediate: true },
)
const ear = useEar()
const played = usePlayed(() => by.value === 'play', calls.asked, calls.play)
watch(call, played.anew)
const midi = useMidi({ struck: (n) => by.value === 'play' && calls.play(n.midi, n.at) })
const voice = useVoice()
watch(call, (c) => c && voice.say(c.spoken))
/* What is answered is heard, and stands for a moment. */
function hear(midi?: number) {
  if (midi === undefined) return
  const release = band.hold(midi)
  setTimeout(release, 500)
}
watch(calls.done, (n) => n && by.value !== 'play' && hear(calls.notes.value[n - 1]?.midi))
/* What was not found tone by tone sounds when it is over. */
watch(over, (now) => {
  const c = now && calls.done.value < Math.max(1, calls.notes.value.length) ? call.value : undefined
  c?.sounds.slice(0, 8).forEach((midi, i) => setTimeout(hear, 300 * i, midi))
})
const { onBeat } = useRound(address, calls)
useCommands(
  {
    uncover: () => calls.uncover(),
    skip: () => void calls.next('skipped'),
    again: () => void calls.again(),
    speak: () => voice.turn(),
  },
  {
    others: (key) => {
      const answer = call.value?.answers.find((a) => a.key === key)
      return answer && (() => void calls.name(answer.is))
    },
  },
)
const [skip, again, uncover, speak] = [
  useCommand('skip'),
  useCommand('again'),
  useCommand('uncover'),
  useCommand('speak'),
]
useCallsNoted(id, calls)
const way = calls.by
const tones = computed(() => {
  const n = call.value?.notes.length
  if (n === 1) return 'it'
  return call.value?.free ? `the ${n} places, in any order` : `the ${n} tones, in order`
})
const sum = computed(() => summed(calls.outcomes.value))
const seconds = (ms?: number) => (ms === undefined ? '' : `${(ms / 1000).toFixed(1)} s`)
useShown(() => call.value && { big: call.value.chord, words: call.value.says, spoken: call.value.spoken })
useSummary({
  whole: () =>
    call.value
      ? `${sum.value.asked ? `${sum.value.right} of ${sum.value.asked} right so far. ` : ''}Asked: ${call.value.spoken}`
      : '',
})
const verdicts = {
  right: 'Right',
  uneven: 'Right, but not in time',
  late: 'Right, after a slip',
  shown: 'Uncovered',
  passed: 'Not answered in time',
  skipped: 'Skipped',
}
const last = computed(() => calls.outcomes.value.at(-1))
</script>

<template>
  <EmptyPlace
    v-if="charts.data.value && !charts.data.value.length"
    title="Nothing to practise yet"
    text="Calls ask for the chords of a chart. Make one first."
  >
    <Button as="router-link" :to="{ name: 'new' }" label="Make a chart" />
  </EmptyPlace>
  <EmptyPlace v-else-if="map.error.value" title="Nothing can be asked here" :text="map.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
  </EmptyPlace>
  <div v-else-if="chart && instrument" class="practice">
    <header>
      <h1>Calls</h1>
      <p class="of">{{ chart.title }} · <MusicText :symbol="chart.key" /></p>
      <span class="space" />
      <p v-if="sum.asked" class="sum" role="status">
        <b>{{ sum.right }}</b> of {{ sum.asked }} at once<template v-if="sum.usual"
          >, in {{ seconds(sum.usual) }}</template
        ><template v-if="sum.skipped"> · {{ sum.skipped }} skipped, not counted</template
        ><template v-if="sum.weak"> · look at <MusicText :symbol="sum.weak" /> again</template>
      </p>
      <Button
        v-if="by === 'play'"
        label="MIDI"
        :variant="midi.on.value ? undefined : 'outlined'"
        :aria-pressed="midi.on.value"
        title="a MIDI guitar or keyboard in place of the microphone"
        @click="midi.turn"
      />
      <EarButton :instrument="instrument" />
      <Button
        v-if="voice.can.value"
        :icon="voice.on.value ? 'pi pi-volume-up' : 'pi pi-volume-off'"
        variant="text"
        :aria-pressed="voice.on.value"
        aria-label="spoken"
        v-bind="speak"
      />
    </header>
    <section v-if="call" class="call" aria-live="polite">
      <OneNote v-if="call.reads" v-bind="call.reads" />
      <p class="chord"><MusicText :symbol="call.chord" /></p>
      <div class="words">
        <p class="says"><MusicText :said="call.says" /></p>
        <p class="where">
          <MusicText :symbol="call.numeral" /><template v-if="call.key !== chart.key">
            in <MusicText :symbol="call.key"
          /></template>
          · frets {{ call.window.low }} to {{ call.window.high
          }}<template v-if="call.strings.length"> · {{ onStrings(call.strings) }}</template>
        </p>
      </div>
      <p v-if="over && last" class="verdict" :class="last.how">
        {{ verdicts[last.how] }}<small v-if="last.took"> in {{ seconds(last.took) }}</small>
      </p>
    </section>
    <p v-if="calls.trouble.value || midi.trouble.value" class="trouble" role="alert">
      {{ calls.trouble.value || midi.trouble.value }}
    </p>
    <template v-if="call">
      <CallNeck
        :instrument="instrument"
        :call="call"
        :notes="calls.notes.value"
        :covered="calls.covered.value"
        :found="calls.found.value"
        :slip="typeof calls.slip.value === 'object' ? calls.slip.value : undefined"
        :pressed="!!call.notes.length && way === 'neck'"
        :over="over"
        @press="calls.press"
        @uncover="calls.uncover"
      />
      <p v-if="call.notes.length && way === 'neck'" class="hint">Press {{ tones }}. {{ calls.done.value }} found.</p>
      <p v-else-if="call.notes.length && way === 'play'" class="hint" role="status">
        <template v-if="ear.on || midi.on.value">Play {{ tones }}. {{ calls.done.value }} heard.</template>
        <template v-else
          >{{ ear.trouble || 'The ear is off.' }} Turn it on above, or answer by name or on the neck.</template
        >
      </p>
      <AnswerKeys
        v-else
        :call="call"
        :over="over"
        :slip="typeof calls.slip.value === 'string' ? calls.slip.value : undefined"
        @name="calls.name"
      />
    </template>
    <footer>
      <Button label="Skip" variant="outlined" v-bind="skip" />
      <Button label="Again" variant="outlined" v-bind="again" />
      <Button v-if="calls.covered.value" label="Uncover" variant="outlined" v-bind="uncover" />
      <SegmentedChoice
        :model-value="way"
        :options="[
          { id: 'name', name: 'by name' },
          { id: 'neck', name: 'on the neck' },
          { id: 'play', name: 'by playing' },
        ]"
        label="answer"
        @update:model-value="by = $event ?? by"
      />
      <span class="space" />
      <CallStep :step="step" @move="(by1) => step.move(by1, calls.outcomes.value.length)" />
      <CallChoice :choice="choice" />
      <TickBox v-model="onBeat"
        >over the band, every {{ calls.bars.value }} {{ calls.bars.value === 1 ? 'bar' : 'bars' }}</TickBox
      >
    </footer>
  </div>
</template>

<style scoped>
.practice {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 0.75rem;
  padding: 0.75rem 1.25rem 1.5rem;
  min-width: 0;
}

header,
footer {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

h1 {
  font-size: var(--text-xl);
}

.of,
.sum,
.where,
.hint {
  color: var(--soft);
}

.sum b {
  color: var(--ink);
}

.space {
  flex: 1;
}

.call {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem clamp(1.5rem, 6vw, 6rem);
  min-height: 12rem;
}

.chord {
  font: 600 clamp(5rem, 13vw, 10.5rem) / 1 var(--font-display);
  white-space: nowrap;
}

.words {
  flex: 1 1 16rem;
  min-width: 0;
}

.says {
  font: 600 clamp(1.6rem, 4.2vw, 3.4rem) / 1.15 var(--font-display);
  text-wrap: balance;
}

.where {
  margin-top: 0.5rem;
  font-size: var(--text-l);
}

.verdict {
  font: 600 var(--text-xl) var(--font-display);
}

.verdict small {
  font: 400 var(--text-m) var(--font-text);
  color: var(--soft);
}

.right {
  color: var(--seventh);
}

.passed,
.shown {
  color: var(--soft);
}

.trouble {
  color: var(--danger);
}
</style>
