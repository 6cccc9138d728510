<script setup lang="ts">
/* The note in hand: what it is, why it is there, how it is played. */
import { computed } from 'vue'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { aloud } from '../../music/text'
import type { LineState } from './useLine'
import { fits, played, told } from '../../document/ways'
import { face } from '../../shell/commands'
import { useCommand } from '../../shell/useCommands'
import { guessed } from '../../document/guesses'
import PhraseNote from './PhraseNote.vue'
import { stepNames, type Entry } from './useEntry'
import { quarter } from '../../api/facts'
import { useSummary } from '../../shell/summary'
import { nameOf, noteSaid, placeSaid } from './said'
import PressButton from '../../shell/PressButton.vue'

const props = defineProps<{ state: LineState; entry: Entry; chord?: string }>()
const emit = defineEmits<{ land: [note: number] }>()
const note = computed(() => props.entry.note.value)
const written = computed(() => props.state.known.value.get(note.value?.id ?? 0))
const reading = computed(() => written.value?.does)
/** With its article: an eighth. */
const one = (length = '') => `${/^[aeiou]/.test(length) ? 'an' : 'a'} ${length}`
const name = computed(() => (written.value ? nameOf(written.value) : ''))
const where = computed(() => placeSaid(props.state.study.value?.score, props.entry.tick.value))
/* What is a part of another way is shown where that one is. */
const ways = computed(() => props.entry.ways.value.filter((w) => note.value && fits(w, note.value)))
const wide = computed(() =>
  props.state.study.value?.report.stretches.find((s) => s.notes.includes(note.value?.id ?? 0)),
)
useSummary({
  whole: () => {
    const [study, line, n] = [props.state.study.value, props.state.line.value, note.value]
    if (!study || !line) return ''
    const { landings } = study.report
    const landed = landings.filter((l) => l.landed).length
    const now = n
      ? ` In hand: ${noteSaid(n, written.value, study, props.entry.ways.value)}.`
      : ` The pen is in ${where.value}.`
    return `${line.title}: ${line.notes.length} notes, ${landed} of ${landings.length} changes landed.${now}${reading.value ? ` ${aloud(reading.value.says)}.` : ''}`
  },
})
const shorter = useCommand('shorter')
const longer = useCommand('longer')
const stringAbove = useCommand('stringAbove')
const remove = useCommand('remove')
</script>

<template>
  <section class="note" aria-live="polite">
    <template v-if="note && written && reading">
      <h2>
        <MarkBadge v-if="reading.degree" :degree="reading.degree" :size="34" />
        <MusicText :symbol="name" />
        <small v-if="chord">over <MusicText :symbol="chord" /></small>
        <small>{{ where }}</small>
      </h2>
      <div class="told">
        <p class="why" :class="{ fault: reading.fault }" :title="reading.says">
          <template v-if="reading.role"
            ><b>{{ reading.role }}</b
            >: </template
          >{{ reading.says }}
        </p>
        <PhraseNote :state="state" :note="note" />
      </div>
      <p v-if="reading.hand || wide" class="hand">
        <i class="pi pi-arrows-h" aria-hidden="true" />
        {{ [reading.hand, wide && `wide: ${wide.says}`].filter(Boolean).join('; ') }}
      </p>
      <p v-if="guessed(note)" class="guessed">
        Guessed: {{ guessed(note) }}.
        <PressButton @click="entry.settle">it is right</PressButton>
      </p>
      <div class="do">
        <PressButton aria-label="shorter" v-bind="shorter">
          <i class="pi pi-minus" />
        </PressButton>
        <span>{{ stepNames[note.length] ?? `${(note.length / quarter).toFixed(2)} beats` }}</span>
        <PressButton aria-label="longer" v-bind="longer">
          <i class="pi pi-plus" />
        </PressButton>
        <PressButton class="wide" v-bind="stringAbove">
          {{ note.string }}:{{ note.fret }} <i class="pi pi-sort-alt" />
        </PressButton>
        <PressButton aria-label="delete this note" v-bind="remove">
          <i class="pi pi-trash" />
        </PressButton>
        <PressButton
          title="practise it: the part that it stands in goes round, and you are heard and judged"
          @click="emit('land', note.id!)"
          >Land it</PressButton
        >
        <i class="gap" />
        <PressButton
          v-for="w in ways"
          :key="w.name"
          :aria-pressed="played(w, note)"
          :title="`${w.name} (${face(w.key)})`"
          @click="entry.play(w)"
        >
          {{ told(w, note) }}
        </PressButton>
      </div>
    </template>
    <template v-else>
      <h2>
        <small>{{ where }}, string {{ entry.string.value }}</small>
      </h2>
      <p class="why">
        Type a fret to write {{ one(stepNames[entry.step.value]) }}, or press a place on the neck below. + and − make it
        longer or shorter; arrows move.
      </p>
    </template>
  </section>
</template>

<style scoped>
.note {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  align-content: start;
  align-items: center;
  gap: 0.2rem 0.9rem;
  min-height: 7.2rem;
}

h2 {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  font-size: 1.6rem;
}

h2 small {
  font: 400 var(--text-m) var(--font-text);
  color: var(--soft);
}

.why {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
}

.guessed,
.hand,
.do {
  grid-column: 1 / -1;
}

.gap {
  width: 0.3rem;
}

.fault {
  color: var(--danger);
}

.guessed {
  color: var(--soft);
}

.guessed button {
  margin-left: 0.3rem;
}

.do {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.2rem;
}

.do span {
  min-width: 4rem;
  text-align: center;
}

button {
  min-width: 2rem;
  min-height: 2rem;
  padding: 0 0.35rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  cursor: pointer;
}

button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}

@media (max-width: 35em) {
  .note {
    grid-template-columns: minmax(0, 1fr);
  }

  h2 {
    flex-wrap: wrap;
  }

  .why {
    display: block;
  }
}
</style>
