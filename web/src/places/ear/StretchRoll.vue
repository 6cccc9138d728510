<script setup lang="ts">
/* The stretch in hand: its sound over rows of half steps, bars with their chords, and the notes that are heard in it. */
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { ChordsByEar, Hearing, HeardStretch, NoteByEar } from '../../api/client'
import MarkShape from '../../music/MarkShape.vue'
import { markOf } from '../../music/marks'
import SvgMusic from '../../music/SvgMusic.vue'
import type { Stretch } from '../../recording/inHand'
import type { Sound } from '../../recording/sound'
import { beatsOf, geometry, path, pitchName, room, rowName, rowsOf } from './roll'
import { useNoteDrag } from './useNoteDrag'
import { useRowsImage } from './useRowsImage'

const props = defineProps<{
  sound: Sound
  hearing: Hearing
  stretch: Stretch
  notes: NoteByEar[]
  heard?: HeardStretch
  chords?: ChordsByEar
  compass: [number, number]
  /** the chords are guesses */
  guessed: boolean
  chosen?: number
  at: number
  /** what the player played in his turn */
  mine?: NoteByEar[]
}>()
const emit = defineEmits<{
  choose: [id: number]
  move: [id: number, at: number, pitch: number]
  write: [at: number, pitch: number]
  seek: [at: number]
}>()
const box = useTemplateRef<HTMLElement>('box')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width } = useElementSize(box, { width: 1100, height: 0 })
const size = computed(() => ({ width: Math.max(300, width.value), height: 340 }))
const rows = computed(() => rowsOf(props.notes.length ? [...props.notes, ...(props.mine ?? [])] : [], props.compass))
const g = computed(() => geometry(props.stretch, rows.value, size.value))
/* Where rows are narrow only some can have a name. */
const named = (m: number) => (g.value.row >= 11 || ['C', 'G'].includes(rowName(m)) ? rowName(m) : '')
const lines = computed(() => Array.from({ length: rows.value.high - rows.value.low + 1 }, (_, i) => rows.value.low + i))
const beats = computed(() => beatsOf(props.heard, props.hearing.beats))
const seen = (at: number) => at >= props.stretch.from - 0.01 && at <= props.stretch.to + 0.01
const told = computed(() => new Map(props.heard?.told.map((t) => [t.id, t])))
const drag = useNoteDrag(g, (id, at, pitch) => emit('move', id, at, pitch))
const marks = computed(
  () =>
  props.notes.map(drag.held).map((n) => ({ n, told: told.value.get(n.id), degree: told.value.get(n.id)?.degree ?? '', d: path(g.value, n) })), // prettier-ignore
)
/* Where no chord is written, the one that is heard stands as a guess. */
const bars = computed(() =>
  (props.heard?.bars ?? []).map((b) => {
    const heard = props.chords?.chords.filter((c) => c.bar === b.number) ?? []
    const [first] = heard
    const says =
      !first || first.chord === 'N.C.'
        ? ''
        : props.guessed
          ? first.says
          : first.agrees
            ? 'heard, agrees'
            : `${first.chord} is heard`
    return { ...b, guessed: props.guessed, says }
  }),
)

useRowsImage(canvas, () => ({
  sound: props.sound,
  stretch: props.stretch,
  rows: rows.value,
  cents: props.hearing.cents,
}))

const ghost = ref<{ at: number; pitch: number }>()
function where(e: MouseEvent) {
  const b = box.value!.getBoundingClientRect()
  const [at, pitch] = [g.value.at(e.clientX - b.left), g.value.pitch(e.clientY - b.top)]
  return seen(at) && pitch >= rows.value.low && pitch <= rows.value.high ? { at, pitch } : undefined
}
function press(e: MouseEvent) {
  const w = where(e)
  if (w) emit('seek', w.at)
}
function twice(e: MouseEvent) {
  const w = where(e)
  if (w) emit('write', w.at, w.pitch)
}
</script>

<template>
  <div ref="box" class="roll">
    <canvas
      ref="canvas"
      aria-hidden="true"
      :style="{ left: `${room.left}px`, top: `${room.top}px`, width: `${g.wide}px`, height: `${g.tall}px` }"
    />
    <svg
      :width="size.width"
      :height="size.height"
      role="group"
      aria-label="the notes of the stretch"
      @click="press"
      @dblclick="twice"
      @mousemove="ghost = where($event)"
      @mouseleave="ghost = undefined"
    >
      <g aria-hidden="true">
        <template v-for="m in lines" :key="m">
          <text v-if="named(m)" :x="room.left - 9" :y="g.y(m) + 5" text-anchor="end" class="name">
            {{ named(m) }}
          </text>
          <rect
            v-if="!rowName(m)"
            :x="room.left"
            :y="g.y(m) - g.row / 2"
            :width="g.wide"
            :height="g.row"
            class="black"
          />
        </template>
        <rect :x="room.left" :y="room.top" :width="g.wide" :height="g.tall" class="frame" />
        <template v-for="b in beats" :key="b.at">
          <line
            v-if="seen(b.at)"
            :x1="g.x(b.at)"
            :x2="g.x(b.at)"
            :y1="b.beat ? room.top : 12"
            :y2="room.top + g.tall"
            :class="b.beat ? 'beat' : 'bar'"
          />
          <text
            v-if="seen(b.at) && g.x(b.at) < size.width - 16"
            :x="g.x(b.at) + 6"
            :y="room.top + g.tall + 18"
            class="name"
          >
            {{ b.beat + 1 }}
          </text>
        </template>
        <template v-for="b in bars" :key="b.number">
          <template v-for="c in b.chords" :key="c.beat">
            <text
              v-if="c.chord !== 'N.C.' && seen(b.at)"
              :x="g.x(b.at + (c.beat / hearing.beats) * (b.to - b.at)) + 9"
              y="35"
              class="chord"
              :class="{ guess: b.guessed }"
            >
              <SvgMusic :symbol="c.chord" :size="25" />
              <template v-if="b.guessed">?</template>
            </text>
          </template>
          <text
            v-if="seen(b.at)"
            :x="g.x(b.at) + (b.chords[0]?.chord === 'N.C.' ? 9 : 26 + 15 * (b.chords[0]?.chord.length ?? 0))"
            y="34"
            class="bar-name"
          >
            bar {{ b.number + 1 }}
            <tspan v-if="b.says && g.wide / bars.length > 230" dx="14">{{ b.says }}</tspan>
          </text>
        </template>
        <rect
          v-if="ghost && !notes.length"
          :x="g.x(ghost.at)"
          :y="g.y(ghost.pitch) - g.row / 2"
          width="14"
          :height="g.row"
          class="ghost"
        />
      </g>
      <g
        v-for="m in marks"
        :key="m.n.id"
        class="note"
        :class="{ guess: !m.n.settled, chosen: m.n.id === chosen }"
        role="button"
        tabindex="-1"
        :aria-label="m.told ? `${m.told.where}, ${m.told.does}` : `note ${m.n.id}`"
        @pointerdown.stop="drag.take($event, m.n)"
        @click.stop="emit('choose', m.n.id)"
      >
        <rect
          v-if="m.n.id === chosen"
          :x="g.x(m.n.at) - 14"
          :y="g.y(m.n.pitch + (m.n.bend ?? 0)) - 17"
          :width="Math.max(34, g.x(m.n.at + m.n.length) - g.x(m.n.at) + 14)"
          :height="34 + (m.n.bend ?? 0) * g.row"
          rx="8"
          class="hold"
        />
        <path :d="m.d" :stroke="markOf(m.degree).colour" class="sounds" />
        <g :transform="`translate(${g.x(m.n.at) + 2} ${g.y(m.n.pitch)})`">
          <MarkShape :degree="m.degree" :r="10.5" :label="m.degree" :hollow="!m.n.settled" />
        </g>
      </g>
      <g v-for="n in mine" :key="n.id" class="mine" role="img" :aria-label="`you played ${pitchName(n.pitch)}`">
        <rect
          :x="g.x(n.at)"
          :y="g.y(n.pitch + (n.bend ?? 0)) - 6"
          :width="Math.max(12, g.x(n.at + n.length) - g.x(n.at))"
          height="12"
          rx="6"
        />
      </g>
      <line v-if="seen(at)" :x1="g.x(at)" :x2="g.x(at)" y1="12" :y2="room.top + g.tall" class="here" />
    </svg>
  </div>
</template>

<style scoped>
.roll {
  position: relative;
  min-width: 0;
}

canvas {
  position: absolute;
  color: var(--ghost);
  image-rendering: auto;
}

svg {
  position: relative;
  display: block;
  max-width: 100%;
}

.name,
.bar-name {
  font-size: 14px;
  fill: var(--soft);
}

.chord {
  font-family: var(--font-display);
  font-size: 25px;
  font-weight: 600;
  fill: var(--ink);
}

.chord.guess {
  fill: var(--soft);
}

.black {
  fill: var(--ink);
  opacity: 0.035;
}

.frame {
  fill: none;
  stroke: var(--rule);
}

.beat {
  stroke: var(--rule);
}

.bar {
  stroke: var(--ink);
  stroke-width: 2;
}

.note {
  cursor: grab;
  touch-action: none;
}

.sounds {
  fill: none;
  stroke-width: 5;
  stroke-linecap: round;
}

.guess .sounds {
  stroke-dasharray: 1 8;
}

.guess :deep(g > path) {
  stroke-dasharray: 3 2.4;
}

.hold {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 2.4;
}

.mine rect {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.ghost {
  fill: var(--lit);
}

.here {
  stroke: var(--third);
  stroke-width: 2.4;
  pointer-events: none;
}
</style>
