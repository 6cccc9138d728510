<script setup lang="ts">
/* A neck to press on: round a window, with marks where they are wanted. A press is told when it begins and when it ends. */
import { useElementSize, useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Instrument } from '../api/client'
import SoundingMarks from '../listen/SoundingMarks.vue'
import MarkShape from '../music/MarkShape.vue'
import NeckBoard from './NeckBoard.vue'
import { geometry, narrow, thumbHigh, thumbWide } from './geometry'

const props = defineProps<{
  instrument: Instrument
  low: number
  high: number
  marks?: { string: number; fret: number; degree: string }[]
  /** The note in hand. */
  note?: { string?: number; fret: number }
  /** What is written at places, such as the keys that press them. */
  written?: { string: number; fret: number; text: string; down?: boolean }[]
  label: string
  height?: number
}>()
const emit = defineEmits<{
  place: [string: number, fret: number]
  down: [string: number, fret: number, at: number]
  up: [string: number, fret: number, at: number]
}>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
/* It may be small on a large screen too. */
const small = useMediaQuery(`(max-width: ${narrow}px)`)
const frame = computed(() => {
  const last = props.instrument.last
  const room = small.value ? thumbWide(width.value) : 9
  const around = Math.max(0, Math.min(2, room - (props.high - props.low)))
  const from = Math.max(0, Math.min(props.low - around, last - room))
  return {
    width: Math.max(240, width.value),
    height: small.value ? thumbHigh(props.instrument.open.length, 59) : (props.height ?? 122),
    top: small.value ? 22 : 10,
    foot: small.value ? 37 : 27,
    from,
    to: Math.min(last, Math.max(from + room, props.high + around)),
  }
})
const g = computed(() => geometry(frame.value, props.instrument))
const frets = computed(() =>
  Array.from({ length: frame.value.to - frame.value.from + 1 }, (_, i) => frame.value.from + i),
)
const strings = computed(() => props.instrument.open.length)
const marks = computed(() => props.marks?.filter((n) => n.fret >= props.low && n.fret <= props.high))
const written = computed(() => props.written?.filter((n) => n.fret >= frame.value.from && n.fret <= frame.value.to))
const edges = (fret: number) => {
  const G = g.value
  const a = fret === 0 ? G.fret(0) - 18 : G.wire(fret - 1)
  const b = fret === 0 ? G.fret(0) + 18 : G.wire(fret)
  return { x: Math.min(a, b), width: Math.abs(b - a) }
}
/** What is pressed sounds until it is let go, wherever that is. */
function press(e: PointerEvent, string: number, fret: number) {
  emit('down', string, fret, e.timeStamp)
  const up = (u: PointerEvent) => {
    if (u.pointerId !== e.pointerId) return
    window.removeEventListener('pointerup', up)
    window.removeEventListener('pointercancel', up)
    emit('up', string, fret, u.timeStamp)
  }
  window.addEventListener('pointerup', up)
  window.addEventListener('pointercancel', up)
}
</script>

<template>
  <div ref="box" class="press-neck">
    <svg
      :viewBox="`0 0 ${frame.width} ${frame.height}`"
      :width="frame.width"
      :height="frame.height"
      role="group"
      :aria-label="label"
    >
      <NeckBoard :g="g" :instrument="instrument" :frame="frame" />
      <g
        v-for="n in marks"
        :key="`${n.string}:${n.fret}`"
        :transform="`translate(${g.fret(n.fret)} ${g.string(n.string)})`"
      >
        <MarkShape :degree="n.degree" :r="9.5" :label="n.degree" />
      </g>
      <text v-for="f in frets" :key="`n${f}`" class="fret" :x="g.fret(f)" :y="frame.height - 4" text-anchor="middle">
        {{ f }}
      </text>
      <circle
        v-if="note?.string && note.fret >= frame.from && note.fret <= frame.to"
        class="now"
        :cx="g.fret(note.fret)"
        :cy="g.string(note.string)"
        r="14"
      />
      <g
        v-for="n in written"
        :key="`k${n.string}:${n.fret}`"
        class="key"
        :class="{ down: n.down }"
        :transform="`translate(${g.fret(n.fret)} ${g.string(n.string)})`"
      >
        <rect x="-10" y="-9" width="20" height="18" rx="4" />
        <text y="5" text-anchor="middle">{{ n.text }}</text>
      </g>
      <SoundingMarks :instrument="instrument" :from="frame.from" :to="frame.to" :x="g.fret" :y="g.string" />
      <g v-for="s in strings" :key="s">
        <rect
          v-for="f in frets"
          :key="f"
          class="cell"
          :data-cell="`${s}:${f}`"
          :x="edges(f).x"
          :width="edges(f).width"
          :y="g.string(s) - g.gap / 2"
          :height="g.gap"
          @click="emit('place', s, f)"
          @pointerdown="press($event, s, f)"
        >
          <title>string {{ s }}, fret {{ f }}</title>
        </rect>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.press-neck {
  overflow: hidden;
}

.fret {
  font-size: 14px;
  fill: var(--soft);
}

.cell {
  fill: transparent;
  cursor: pointer;
}

.cell:hover {
  fill: var(--lit-rule);
  fill-opacity: 0.25;
}

.key rect {
  fill: var(--paper);
  stroke: var(--rule);
}

.key text {
  font-size: 12px;
  fill: var(--soft);
}

.key.down rect {
  fill: var(--lit-rule);
}

.now {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 3;
}
</style>
