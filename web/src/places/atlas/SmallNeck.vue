<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Instrument, Note, Position } from '../../api/client'
import MarkShape from '../../music/MarkShape.vue'
import { dots } from '../../neck/geometry'
import { holds } from '../../neck/region'
import { placeOf, score } from './blank'

/* One position as a little neck; drawn in a fixed box that scales to its cell. */
const props = defineProps<{
  instrument: Instrument
  position: Position
  notes: Note[]
  labels: 'degree' | 'note' | 'finger' | 'fret'
  /** The degrees of the chord itself, where others are shown too: those are hollow. */
  own?: ReadonlySet<string>
  /** An empty neck, to be filled by clicking. */
  blank?: boolean
  /** The chord's tones here by place, to check a filled one against. */
  truth: Map<string, Note>
  checked?: boolean
  name: string
  /** Room for a fret, in units of which a string has 25; fewer chords on a sheet leave more. */
  cell: number
}>()
/** Places that were marked on an empty one. */
const filled = defineModel<readonly string[]>('filled', { default: () => [] })
const gap = 25
const count = computed(() => props.position.high - props.position.low + 1)
const strings = computed(() => props.instrument.open.length)
const box = computed(() => ({ width: count.value * props.cell + 20, height: (strings.value - 1) * gap + 56 }))
const column = (fret: number) => {
  const i = fret - props.position.low
  return 10 + (props.instrument.left ? count.value - 1 - i : i) * props.cell + props.cell / 2
}
const row = (s: number) => 17 + (s - 1) * gap
const labelOf = (n: Note) =>
  ({ degree: n.degree, note: n.note, finger: n.finger ? String(n.finger) : n.fret ? '' : 'o', fret: String(n.fret) })[
    props.labels
  ]

/* Filling in: a click, or the arrows and space, sets a dot and takes it away. */
const cursor = ref<{ string: number; fret: number }>()
const on = (s: number) => holds(props.position, { string: s, fret: props.position.low })
const toggle = (s: number, fret: number) => {
  const k = placeOf({ string: s, fret })
  if (props.checked || !on(s)) return
  filled.value = filled.value.includes(k) ? filled.value.filter((x) => x !== k) : [...filled.value, k]
}
const cells = computed(() =>
  Array.from({ length: strings.value * count.value }, (_, i) => ({
    string: Math.floor(i / count.value) + 1,
    fret: props.position.low + (i % count.value),
  })),
)
function press(e: KeyboardEvent) {
  if (!props.blank) return
  const c = cursor.value ?? { string: strings.value, fret: props.position.low }
  const along = props.instrument.left ? -1 : 1
  const moves: Record<string, [number, number]> = {
    ArrowLeft: [0, -along],
    ArrowRight: [0, along],
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
  }
  const m = moves[e.key]
  if (m) {
    const [s, f] = [c.string + m[0], c.fret + m[1]]
    if (s >= 1 && s <= strings.value && f >= props.position.low && f <= props.position.high)
      cursor.value = { string: s, fret: f }
  } else if (e.key === ' ' || e.key === 'Enter') toggle(c.string, c.fret)
  else return
  cursor.value ??= c
  e.preventDefault()
  e.stopPropagation()
}
const dotsIn = computed(() => filled.value.map((k) => ({ k, s: Number(k.split(':')[0]), f: Number(k.split(':')[1]) })))
const missing = computed(() => score(props.truth, filled.value).left)
</script>

<template>
  <svg
    :viewBox="`0 0 ${box.width} ${box.height}`"
    role="img"
    :aria-label="name"
    preserveAspectRatio="xMidYMid meet"
    :tabindex="blank ? 0 : undefined"
    @keydown="press"
    @blur="cursor = undefined"
  >
    <line
      v-for="s in strings"
      :key="'s' + s"
      class="string"
      :class="{ off: !on(s) }"
      x1="10"
      :x2="box.width - 10"
      :y1="row(s)"
      :y2="row(s)"
    />
    <line
      v-for="i in count + 1"
      :key="'f' + i"
      class="wire"
      :class="{ nut: position.low === 0 && i === (instrument.left ? count : 2) }"
      :x1="10 + (i - 1) * props.cell"
      :x2="10 + (i - 1) * props.cell"
      :y1="row(1)"
      :y2="row(strings)"
    />
    <text
      v-for="i in count"
      :key="'n' + i"
      :x="column(position.low + i - 1)"
      :y="box.height - 6"
      text-anchor="middle"
      :class="{ marked: dots.includes(position.low + i - 1) }"
    >
      {{ position.low + i - 1 }}
    </text>
    <template v-if="!blank">
      <g v-for="n in notes" :key="n.midi" :transform="`translate(${column(n.fret)} ${row(n.string)})`">
        <MarkShape :degree="n.degree" :label="labelOf(n)" :r="11.5" :hollow="own && !own.has(n.degree)" />
      </g>
    </template>
    <template v-else>
      <g v-for="d in dotsIn" :key="d.k" :transform="`translate(${column(d.f)} ${row(d.s)})`" :data-filled="d.k">
        <MarkShape
          v-if="checked && truth.has(d.k)"
          :degree="truth.get(d.k)!.degree"
          :label="labelOf(truth.get(d.k)!)"
          :r="11.5"
        />
        <path v-else-if="checked" class="wrong" d="M -8 -8 L 8 8 M 8 -8 L -8 8" />
        <circle v-else class="dot" r="9" />
      </g>
      <g
        v-for="n in checked ? missing : []"
        :key="n.midi + ':' + n.string"
        :transform="`translate(${column(n.fret)} ${row(n.string)})`"
        data-missing
      >
        <MarkShape :degree="n.degree" :label="labelOf(n)" :r="10.5" hollow />
      </g>
      <circle v-if="cursor" class="cursor" :cx="column(cursor.fret)" :cy="row(cursor.string)" r="13" />
      <rect
        v-for="c in cells"
        :key="placeOf(c)"
        class="cell"
        :data-cell="placeOf(c)"
        :x="column(c.fret) - cell / 2"
        :y="row(c.string) - gap / 2"
        :width="cell"
        :height="gap"
        @click="toggle(c.string, c.fret)"
      />
    </template>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: 100%;
  min-height: 0;
  font-family: var(--font-text);
}

.string {
  stroke: var(--ink);
  stroke-width: 1;
  opacity: 0.7;
}

.off {
  opacity: 0.2;
}

.wire {
  stroke: var(--rule);
  stroke-width: 1.4;
}

.nut {
  stroke: var(--ink);
  stroke-width: 4;
}

text {
  font-size: 14px;
  fill: var(--soft);
}

.dot {
  fill: var(--soft);
}

.wrong {
  stroke: var(--danger);
  stroke-width: 4;
  stroke-linecap: round;
}

.cursor {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 3;
}

.cell {
  fill: transparent;
  cursor: pointer;
}

text.marked {
  fill: var(--ink);
  font-weight: 700;
}
</style>
