<script setup lang="ts">
/* The neck of a call: covered until asked; what is found stands on it, and where tones are to be found it is pressed. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Call, Instrument } from '../../api/client'
import SoundingMarks from '../../listen/SoundingMarks.vue'
import MarkShape from '../../music/MarkShape.vue'
import NeckBoard from '../../neck/NeckBoard.vue'
import { towards } from '../../neck/cells'
import { geometry, narrow, thumbHigh, thumbWide } from '../../neck/geometry'
import type { Place } from './useCalls'

const props = defineProps<{
  instrument: Instrument
  call: Call
  /** what is found stands before what is not */
  notes: Call['notes']
  covered: boolean
  found: Place[]
  slip?: Place
  /** places are pressed */
  pressed: boolean
  /** the answer is shown */
  over: boolean
}>()
const emit = defineEmits<{ press: [at: Place]; uncover: [] }>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 1100, height: 0 })
const frame = computed(() => {
  const last = props.instrument.last
  if (width.value >= 900) return { width: width.value, height: 230, from: 0, to: last }
  const room = Math.min(8, thumbWide(width.value))
  const from = Math.max(0, Math.min(props.call.window.low - 1, last - room))
  return {
    width: Math.max(240, width.value),
    height: width.value < narrow ? thumbHigh(props.instrument.open.length) : 230,
    from,
    to: Math.min(last, Math.max(from + room, props.call.window.high)),
  }
})
const g = computed(() => geometry(frame.value, props.instrument))
const frets = computed(() =>
  Array.from({ length: frame.value.to - frame.value.from + 1 }, (_, i) => frame.value.from + i),
)
/* String 1 first. */
const strings = computed(() =>
  props.call.strings.length
    ? props.call.strings.toReversed()
    : Array.from({ length: g.value.strings }, (_, i) => i + 1),
)
const inside = computed(() => frets.value.filter((f) => f >= props.call.window.low && f <= props.call.window.high))
const cell = (fret: number) => {
  const [a, b] =
    fret === 0 ? [g.value.fret(0) - 18, g.value.fret(0) + 18] : [g.value.wire(fret - 1), g.value.wire(fret)]
  return { x: Math.min(a, b), width: Math.abs(b - a) }
}
const shade = computed(() => {
  const cells = inside.value.map(cell)
  const x = Math.min(...cells.map((c) => c.x))
  const top = g.value.string(strings.value[0]!) - g.value.gap / 2
  return {
    x,
    y: top,
    width: Math.max(...cells.map((c) => c.x + c.width)) - x,
    height: g.value.string(strings.value.at(-1)!) + g.value.gap / 2 - top,
  }
})
/* One field where the strings are neighbours, or else one for each. */
const fields = computed(() => {
  const list = strings.value
  if (list.at(-1)! - list[0]! === list.length - 1) return [shade.value]
  const { x, width } = shade.value
  return list.map((s) => ({ x, width, y: g.value.string(s) - g.value.gap / 2, height: g.value.gap }))
})
/** What is seen: what was found, and uncovered all that was asked for. */
const marks = computed(() =>
  props.notes.flatMap((n, i) => {
    const at = props.found[i] ?? (props.covered ? undefined : n.places[0])
    return at ? [{ ...at, degree: n.degree, hollow: !props.found[i] }] : []
  }),
)
/* One of the places is in the way of Tab; arrows go from there to the others. */
const held = ref<Place>()
const hand = computed(() => held.value ?? { string: strings.value.at(-1)!, fret: inside.value[0]! })
function key(e: KeyboardEvent) {
  if (e.altKey || e.ctrlKey || e.metaKey || e.shiftKey) return
  const to = towards(hand.value, e.key, { strings: strings.value, frets: inside.value, left: props.instrument.left })
  if (to) box.value?.querySelector<SVGElement>(`[data-cell="${to.string}:${to.fret}"]`)?.focus()
  else if (e.key === 'Enter' || e.key === ' ') emit('press', hand.value)
  else return
  e.preventDefault()
  e.stopPropagation()
}
</script>

<template>
  <div ref="box" class="call-neck">
    <svg :width="frame.width" :height="frame.height" role="group" aria-label="the neck">
      <NeckBoard :g="g" :frame="frame" :instrument="instrument" />
      <rect v-for="(f, i) in fields" :key="i" class="window" v-bind="f" rx="8" />
      <g v-if="covered && !pressed" class="cover" @click="emit('uncover')">
        <rect v-bind="shade" rx="8" />
        <text :x="shade.x + shade.width / 2" :y="shade.y + shade.height / 2 + 6">covered · H uncovers</text>
      </g>
      <text v-for="f in frets" :key="f" class="fret" :class="{ in: inside.includes(f) }" :x="g.fret(f)" :y="g.numbers">
        {{ f }}
      </text>
      <g
        v-for="m in marks"
        :key="`${m.string}:${m.fret}`"
        :transform="`translate(${g.fret(m.fret)} ${g.string(m.string)})`"
      >
        <MarkShape :degree="m.degree" :r="14" :label="m.degree" :hollow="m.hollow" />
      </g>
      <SoundingMarks :instrument="instrument" :from="0" :to="instrument.last" :x="g.fret" :y="g.string" />
      <circle v-if="call.given" class="given" :cx="g.fret(call.given.fret)" :cy="g.string(call.given.string)" r="13" />
      <path
        v-if="slip"
        class="slip"
        :d="`M ${g.fret(slip.fret) - 8} ${g.string(slip.string) - 8} l 16 16 m 0 -16 l -16 16`"
      />
      <template v-if="pressed && !over">
        <g v-for="s in strings" :key="s" @keydown="key">
          <rect
            v-for="f in inside"
            :key="f"
            class="cell"
            :x="cell(f).x"
            :y="g.string(s) - g.gap / 2"
            :width="cell(f).width"
            :height="g.gap"
            role="button"
            :aria-label="`string ${s}, fret ${f}`"
            :data-cell="`${s}:${f}`"
            :tabindex="s === hand.string && f === hand.fret ? 0 : -1"
            @focus="held = { string: s, fret: f }"
            @click="emit('press', { string: s, fret: f })"
          />
        </g>
      </template>
    </svg>
  </div>
</template>

<style scoped>
.call-neck {
  min-width: 0;
}

svg {
  display: block;
}

.window {
  fill: var(--lit);
  opacity: 0.55;
}

.cover {
  cursor: pointer;
}

.cover rect {
  fill: var(--lit);
  stroke: var(--lit-rule);
  stroke-dasharray: 5 4;
}

.cover text {
  fill: var(--ink);
  font-size: var(--text-m);
  font-weight: 700;
  text-anchor: middle;
}

.fret {
  fill: var(--soft);
  font-size: 15px;
  text-anchor: middle;
}

.in {
  fill: var(--ink);
  font-weight: 700;
}

.given {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 4;
}

.slip {
  stroke: var(--danger);
  stroke-width: 4;
  fill: none;
  stroke-linecap: round;
}

.cell {
  fill: transparent;
  cursor: pointer;
}

.cell:hover {
  fill: var(--lit);
}

.cell:focus-visible {
  outline: none;
  stroke: var(--ink);
  stroke-width: 3;
  stroke-dasharray: 5 3;
}
</style>
