<script setup lang="ts">
/* The neck under the tablature: a press writes a note. The chord's tones are marked in the window. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { LineBody, LineNote, Tones } from '../../api/client'
import SoundingMarks from '../../listen/SoundingMarks.vue'
import MarkShape from '../../music/MarkShape.vue'
import NeckBoard from '../../neck/NeckBoard.vue'
import { geometry } from '../../neck/geometry'

const props = defineProps<{ tones: Tones; chord?: string; line: LineBody; note?: LineNote }>()
const emit = defineEmits<{ place: [string: number, fret: number] }>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const frame = computed(() => {
  const last = props.tones.instrument.last
  const from = Math.max(0, Math.min(props.line.low - 2, last - 9))
  return {
    width: Math.max(320, width.value),
    height: 122,
    top: 10,
    foot: 27,
    from,
    to: Math.min(last, Math.max(from + 9, props.line.high + 2)),
  }
})
const g = computed(() => geometry(frame.value, props.tones.instrument))
const frets = computed(() =>
  Array.from({ length: frame.value.to - frame.value.from + 1 }, (_, i) => frame.value.from + i),
)
const strings = computed(() => props.tones.instrument.open.length)
const marks = computed(() =>
  (props.tones.chords.find((c) => c.symbol === props.chord)?.notes ?? []).filter(
    (n) => n.fret >= props.line.low && n.fret <= props.line.high,
  ),
)
const edges = (fret: number) => {
  const G = g.value
  const a = fret === 0 ? G.fret(0) - 18 : G.wire(fret - 1)
  const b = fret === 0 ? G.fret(0) + 18 : G.wire(fret)
  return { x: Math.min(a, b), width: Math.abs(b - a) }
}
</script>

<template>
  <div ref="box" class="entry-neck">
    <svg
      :viewBox="`0 0 ${frame.width} ${frame.height}`"
      :width="frame.width"
      :height="frame.height"
      role="group"
      aria-label="the neck: press a place to write it"
    >
      <NeckBoard :g="g" :instrument="tones.instrument" :frame="frame" />
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
      <SoundingMarks :instrument="tones.instrument" :from="frame.from" :to="frame.to" :x="g.fret" :y="g.string" />
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
        >
          <title>string {{ s }}, fret {{ f }}</title>
        </rect>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.entry-neck {
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

.now {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 3;
}
</style>
