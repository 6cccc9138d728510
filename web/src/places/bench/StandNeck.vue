<script setup lang="ts">
import { useElementSize, useWindowSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Instrument, Note, Target } from '../../api/client'
import MarkShape from '../../music/MarkShape.vue'
import { markOf, outline } from '../../music/marks'
import { spoken } from '../../music/text'
import NeckBoard from '../../neck/NeckBoard.vue'
import { geometry } from '../../neck/geometry'

/* The window alone, as large as the screen allows: this chord's tones, and where to arrive. */
const props = defineProps<{
  instrument: Instrument
  window: { low: number; high: number }
  notes: Note[]
  from?: Target
  to?: Target
}>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 1200, height: 0 })
const { width: wide, height: tall } = useWindowSize()
/* On a screen that stands upright so does the neck, its nut on top and string 1 at the right. */
const upright = computed(() => tall.value > wide.value && wide.value < 900)
const frame = computed(() => ({
  ...(upright.value
    ? { width: Math.max(300, Math.min(640, tall.value - 390)), height: width.value }
    : { width: width.value, height: Math.max(280, Math.min(440, width.value * 0.36, tall.value - 435)) }), // the strip lies below
  from: Math.max(0, props.window.low - 1),
  to: Math.min(props.instrument.last, props.window.high + 1),
  top: upright.value ? 30 : 44,
  foot: upright.value ? 56 : 92,
}))
/* Upright the strings change sides for left-handers, not the frets. */
const mirrored = computed(() => !!props.instrument.left && upright.value)
const g = computed(() => geometry(frame.value, { ...props.instrument, left: props.instrument.left && !upright.value }))
const r = computed(() => Math.min(g.value.gap * 0.46, g.value.half(frame.value.to) * 0.8))
/* Where a point of the neck as it lies is on the screen. */
const turned = computed(() =>
  !upright.value ? undefined : mirrored.value ? 'matrix(0 1 1 0 0 0)' : `matrix(0 1 -1 0 ${frame.value.height} 0)`,
)
function put(x: number, y: number) {
  if (!upright.value) return { x, y }
  return { x: mirrored.value ? y : frame.value.height - y, y: x }
}
const at = (p: { string: number; fret: number }) => {
  const { x, y } = put(g.value.fret(p.fret), g.value.string(p.string))
  return `translate(${x} ${y})`
}
const numberAt = (fret: number) => {
  const { x, y } = put(g.value.fret(fret), frame.value.height - 22)
  return upright.value ? { x, y: y + 8 } : { x, y: g.value.numbers }
}
const stays = computed(
  () => props.from && props.to && props.from.midi === props.to.midi && props.from.string === props.to.string,
)
const taken = computed(() => props.notes.some((n) => n.string === props.to?.string && n.fret === props.to.fret))
const words = computed(() =>
  props.to
    ? `arrive on the ${spoken(props.to.degree)}, ${spoken(props.to.note)}, string ${props.to.string} fret ${props.to.fret}`
    : 'the neck',
)
const frets = computed(() =>
  Array.from({ length: frame.value.to - frame.value.from + 1 }, (_, i) => frame.value.from + i),
)
</script>

<template>
  <div ref="box">
    <svg
      :width="upright ? frame.height : frame.width"
      :height="upright ? frame.width : frame.height"
      role="img"
      :aria-label="words"
    >
      <NeckBoard :g="g" :frame="frame" :instrument="instrument" :transform="turned" :unnamed="upright" />
      <text v-for="n in frets.filter((f) => f > 0)" :key="n" class="number" v-bind="numberAt(n)" text-anchor="middle">
        {{ n }}
      </text>
      <g v-for="(n, i) in notes" :key="i" :transform="at(n)">
        <path :d="outline(markOf(n.degree).shape, r)" fill="var(--paper)" />
        <MarkShape
          :class="{ aside: from && (n.string !== from.string || n.fret !== from.fret) }"
          :degree="n.degree"
          :label="n.degree"
          :r="r"
        />
      </g>
      <g v-if="from" :transform="at(from)"><MarkShape :degree="from.degree" :label="from.degree" :r="r * 1.12" /></g>
      <g v-if="to" :transform="at(to)" data-stand-arrival>
        <circle class="ring" :r="r * 1.36" />
        <MarkShape v-if="!stays && !taken" :degree="to.degree" :label="to.degree" :r="r" hollow />
      </g>
    </svg>
  </div>
</template>

<style scoped>
svg {
  display: block;
  font-family: var(--font-text);
}

.number {
  font-size: 24px;
  font-weight: 600;
  fill: var(--ink);
}

.aside {
  opacity: 0.42;
}

.ring {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 6;
}
</style>
