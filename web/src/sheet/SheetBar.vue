<script setup lang="ts">
import { computed } from 'vue'
import type { Bar, Chord, Target } from '../api/client'
import MarkBadge from '../music/MarkBadge.vue'
import MusicText from '../music/MusicText.vue'
import PressButton from '../shell/PressButton.vue'

/* One bar. It takes only what concerns it, so that a step redraws two bars and not the whole chart. */
const props = defineProps<{
  bar: Bar
  index: number
  chords: Chord[]
  /** Its metre, where that is told. */
  metre?: number
  /** Which of its chords is in hand, or comes next. */
  here?: number
  soon?: number
  /** Whether its chords can be gone to. */
  live: boolean
  targets?: (Target | undefined)[]
  /** Which of two joined boxes to be in, chord by chord through the form. */
  boxes?: (string | undefined)[]
  /** The place of its first chord among the targets. */
  first: number
  /** The beats of it that are looped, and whether the loop begins or ends here. */
  loop?: { from: number; to: number; begins: boolean; ends: boolean }
  /** The beat that is heard, from 1. */
  heard?: number
}>()
const emit = defineEmits<{ go: [change: number]; loop: [] }>()

/** Notes of the imagined chords that rub against the band's. */
const rubs = computed(() => [...new Set(props.bar.changes.flatMap((c) => c.rubs?.map((r) => r.note) ?? []))])

/** A bar that a song comes back to says for which time. */
const again = computed(() => {
  const n = props.bar.pass ?? 1
  return n > 1 ? `${n}${['', '', 'nd', 'rd'][n] ?? 'th'} time ` : ''
})

/** What is read out before the chord that is written. */
const said = (i: number) =>
  `bar ${props.index + 1}${again.value && `, ${again.value.trim()}`}${props.bar.changes.length > 1 ? `, beat ${props.bar.changes[i]!.beat}` : ''}: `
</script>

<template>
  <div
    class="bar"
    :class="{
      imagined: bar.band,
      titled: bar.section,
      crowded: bar.changes.length > 2,
      on: here !== undefined,
      coming: soon !== undefined && here === undefined,
    }"
    :data-bar="index + 1"
  >
    <span class="number"
      ><b v-if="metre" class="metre" :title="`${metre} beats in a bar from here`">{{ metre }}/4 </b
      ><small v-if="again" :title="`bar ${bar.written} as it is written`">{{ again }}</small
      >{{ index + 1 }}</span
    >
    <span v-if="bar.band" class="band" :title="`the band plays ${bar.band}`"
      >band <MusicText :symbol="bar.band" /><template v-if="rubs.length"
        >,
        <b class="rubs"
          ><template v-for="(r, i) in rubs" :key="r">{{ i ? ' ' : '' }}<MusicText :symbol="r" /></template> rub{{
            rubs.length > 1 ? '' : 's'
          }}</b
        ></template
      ></span
    >
    <span v-if="bar.section" class="section">{{ bar.section }}</span>
    <PressButton
      v-for="(c, i) in bar.changes"
      :key="i"
      class="change"
      :class="{ here: here === i, soon: soon === i, small: bar.changes.length > 1, tiny: bar.changes.length > 2 }"
      :style="{ flexGrow: c.length }"
      :aria-current="here === i ? 'true' : undefined"
      :tabindex="live ? 0 : -1"
      @click="$event.shiftKey ? emit('loop') : emit('go', i)"
    >
      <span class="hidden-text">{{ said(i) }}</span>
      <span class="chord"><MusicText :symbol="chords[c.chord]?.symbol ?? ''" /></span>
      <span class="numeral"
        ><MusicText :symbol="c.numeral" /><template v-if="boxes?.[first + i]"> · {{ boxes[first + i] }}</template></span
      >
      <span v-if="targets?.[first + i]" class="aim">
        <MarkBadge :degree="targets[first + i]!.degree" :size="28" />
        <MusicText :symbol="targets[first + i]!.note" />
      </span>
    </PressButton>
    <span v-if="here !== undefined" class="beats" aria-hidden="true">
      <i
        v-for="b in bar.beats"
        :key="b"
        :class="{ starts: heard === undefined && bar.changes.some((c) => c.beat === b), heard: heard === b }"
      />
    </span>
    <span
      v-if="loop"
      class="loop"
      :class="{ begins: loop.begins, ends: loop.ends }"
      :style="{ left: `${(loop.from / bar.beats) * 100}%`, right: `${(1 - loop.to / bar.beats) * 100}%` }"
      aria-label="looped"
    />
  </div>
</template>

<style scoped>
.bar {
  container-type: inline-size;
  position: relative;
  display: flex;
  border-left: 2px solid var(--ink);
  min-width: 0;
}

.bar:last-child {
  border-right: 2px solid var(--ink);
}

.bar.on {
  background: var(--lit);
}

.bar.coming {
  box-shadow: inset 0 -4px color-mix(in srgb, var(--lit-rule) 45%, transparent);
}

.number {
  position: absolute;
  top: 2px;
  right: 6px;
  font-size: 0.875rem;
  color: var(--soft);
}

.section {
  position: absolute;
  top: 1px;
  left: 10px;
  max-width: 70%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font: 600 0.875rem var(--font-text);
  color: var(--third);
}

.band {
  position: absolute;
  z-index: 1;
  left: 10px;
  bottom: -1px;
  font-size: 0.875rem;
  color: var(--soft);
  pointer-events: none;
}

.rubs {
  color: var(--danger);
  text-decoration: underline wavy;
}

.aim {
  position: absolute;
  right: 6px;
  bottom: 5px;
  display: flex;
  align-items: center;
  gap: 0.25rem;
  font-size: var(--text-s);
  font-weight: 700;
}

/* Several chords to a bar leave room for less of each; four need a line of their own under the bar's number. */
.small .aim > :last-child {
  display: none;
}

.tiny .numeral {
  display: none;
}

.crowded .change,
.titled .change {
  padding-top: 17px;
}

.crowded .change {
  padding-left: 4px;
}

.crowded .aim {
  right: auto;
  left: 4px;
  bottom: 3px;
  transform: scale(0.8);
  transform-origin: left bottom;
}

/* An imagined bar carries a line more. */
.imagined .numeral {
  display: none;
}

.imagined .chord {
  font-size: 1.25rem;
  font-style: italic;
  padding-top: 0;
}

.imagined .aim {
  bottom: 17px;
}

.change {
  flex: 1 1 0;
  min-width: 0;
  min-height: var(--target);
  border: 0;
  padding: 1px 0 3px 10px;
  background: none;
  color: inherit;
  text-align: left;
  cursor: pointer;
  position: relative;
  display: flex;
  flex-direction: column;
  justify-content: space-between;
}

.change + .change {
  border-left: 1px dotted var(--ghost);
  padding-left: 8px;
}

.change:focus-visible {
  outline-offset: -3px;
  z-index: 1;
}

.chord {
  font: 600 var(--text-xl) / 1.05 var(--font-display);
  letter-spacing: -0.01em;
  white-space: nowrap;
}

.small .chord {
  font-size: 1.375rem;
  padding-top: 0.2rem;
}

.tiny .chord {
  font-size: 1rem;
}

.here .chord {
  text-decoration: underline 3px var(--lit-rule);
  text-underline-offset: 3px;
}

.numeral {
  font-size: 0.9375rem;
  color: var(--soft);
  line-height: 1;
}

.on .numeral,
.on .number {
  color: var(--ink);
}

/* Where the metre changes it stands before the bar's number. */
.metre {
  margin-right: 0.35em;
  color: var(--ink);
}

/* The beats are the lit rule at the foot; those on which a chord begins stand out. */
.beats {
  position: absolute;
  inset: auto 0 0 0;
  height: 5px;
  display: flex;
  gap: 3px;
}

.beats i {
  flex: 1;
  background: color-mix(in srgb, var(--lit-rule) 45%, transparent);
}

.beats .starts {
  background: var(--lit-rule);
}

.beats .heard {
  background: var(--third);
  height: 9px;
  margin-top: -4px;
}

/* The loop is a bracket over its bars. */
.loop {
  position: absolute;
  top: 0;
  height: 9px;
  border-top: 4px solid var(--third);
  pointer-events: none;
}

.begins {
  border-left: 4px solid var(--third);
}

.ends {
  border-right: 4px solid var(--third);
}

@container (max-width: 130px) {
  .chord {
    font-size: 1.3rem;
  }

  .small .chord {
    font-size: 1rem;
  }

  .tiny .chord {
    font-size: 0.875rem;
  }

  .small .numeral,
  .aim > :last-child {
    display: none;
  }

  .aim {
    right: 4px;
    bottom: 3px;
    transform: scale(0.82);
    transform-origin: right bottom;
  }

  .small {
    padding-left: 4px;
  }

  .small,
  .titled .change {
    padding-top: 17px;
  }
}
</style>
