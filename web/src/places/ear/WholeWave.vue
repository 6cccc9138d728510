<script setup lang="ts">
/* The whole recording: how loud it is where, its markers, and the stretch in hand; dragging takes one, a press goes there. */
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Hearing } from '../../api/client'
import { clock, secondOf, type Stretch } from '../../recording/inHand'
import { peakRate, type Sound } from '../../recording/sound'

const props = defineProps<{ sound: Sound; hearing: Hearing; stretch?: Stretch; at: number }>()
const emit = defineEmits<{ take: [from: number, to: number]; seek: [at: number]; marker: [index: number] }>()
const box = useTemplateRef<HTMLElement>('box')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width } = useElementSize(box, { width: 1100, height: 0 })
const height = 74
const [top, foot] = [14, 66]
const seconds = computed(() => props.sound.seconds.value || 1)
const x = (at: number) => (at / seconds.value) * width.value

function draw() {
  const c = canvas.value
  const pen = c?.getContext('2d')
  if (!c || !pen || !width.value) return
  const sharp = window.devicePixelRatio || 1
  c.width = Math.round(width.value * sharp)
  c.height = Math.round(height * sharp)
  pen.scale(sharp, sharp)
  pen.fillStyle = getComputedStyle(c).color
  const peaks = props.sound.peaks.value
  const step = (seconds.value * peakRate) / width.value
  const middle = (top + foot) / 2
  for (let px = 0; px < width.value; px++) {
    let most = 0
    for (let i = Math.floor(px * step); i < (px + 1) * step && i < peaks.length; i++) most = Math.max(most, peaks[i]!)
    const half = Math.max(0.5, (most / 255) * (foot - middle))
    pen.fillRect(px, middle - half, 1, 2 * half)
  }
}
watch([() => props.sound.peaks.value, width, seconds, canvas], draw, { flush: 'post', immediate: true })
defineExpose({ draw })

/** Bars are drawn where they lie so far apart that they can be told. */
const bars = computed(() => {
  const { anchors, beats } = props.hearing
  if (anchors.length < 2) return []
  const one = x(secondOf(anchors, beats)!) - x(secondOf(anchors, 0)!)
  const every = Math.max(1, 2 ** Math.ceil(Math.log2(26 / Math.max(one, 0.01))))
  const list: number[] = []
  for (let bar = 0; bar < 4000; bar += every) {
    const at = secondOf(anchors, bar * beats)!
    if (at > seconds.value) break
    if (at >= 0) list.push(at)
  }
  return list
})

/* Dragging takes a stretch; a press without it goes to a moment. */
const held = ref<{ from: number; to: number }>()
const moment = (e: PointerEvent) => {
  const { left } = box.value!.getBoundingClientRect()
  return Math.max(0, Math.min(seconds.value, ((e.clientX - left) / width.value) * seconds.value))
}
function down(e: PointerEvent) {
  if (e.button) return
  box.value!.setPointerCapture(e.pointerId)
  held.value = { from: moment(e), to: moment(e) }
}
function move(e: PointerEvent) {
  if (held.value) held.value = { ...held.value, to: moment(e) }
}
function up() {
  const h = held.value
  held.value = undefined
  if (!h) return
  if (Math.abs(x(h.to) - x(h.from)) < 5) emit('seek', h.to)
  else emit('take', h.from, h.to)
}
const shown = computed(() => {
  const s = held.value ? { from: Math.min(held.value.from, held.value.to), to: Math.max(held.value.from, held.value.to) } : props.stretch // prettier-ignore
  return s && { x: x(s.from), width: Math.max(2, x(s.to) - x(s.from)) }
})
</script>

<template>
  <div
    ref="box"
    class="whole"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="held = undefined"
  >
    <svg v-if="shown" class="under" :width="width" :height="height" aria-hidden="true">
      <rect :x="shown.x" :y="top" :width="shown.width" :height="foot - top" class="taken" />
    </svg>
    <canvas
      ref="canvas"
      :style="{ width: `${width}px`, height: `${height}px` }"
      role="img"
      :aria-label="`the whole recording, ${clock(seconds)}`"
    />
    <svg class="over" :width="width" :height="height" aria-hidden="true">
      <line v-for="bar in bars" :key="bar" :x1="x(bar)" :x2="x(bar)" :y1="top - 4" :y2="foot + 4" class="bar" />
      <rect v-if="shown" :x="shown.x" :y="top" :width="shown.width" :height="foot - top" class="edge" />
      <g v-for="(m, i) in hearing.markers" :key="i" class="marker" @pointerdown.stop @click="emit('marker', i)">
        <path :d="`M${x(m.at)} ${foot} V2 h9 l-3 4 3 4 h-9`" />
        <text :x="x(m.at) + 13" y="11">{{ m.title }}</text>
      </g>
      <line :x1="x(at)" :x2="x(at)" :y1="top - 6" :y2="foot + 6" class="here" />
    </svg>
  </div>
</template>

<style scoped>
.whole {
  position: relative;
  height: 74px;
  cursor: text;
  touch-action: none;
  min-width: 0;
  overflow: hidden;
}

canvas,
svg {
  position: absolute;
  inset: 0;
  color: var(--ghost);
}

canvas {
  opacity: 0.62;
}

.taken {
  fill: var(--lit);
}

.edge {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 2;
}

.bar {
  stroke: var(--rule);
}

.marker {
  cursor: pointer;
}

.marker path {
  fill: var(--third);
  stroke: var(--third);
  stroke-width: 1.4;
}

.marker text {
  font-size: 14px;
  fill: var(--soft);
}

.over {
  pointer-events: none;
}

.over .marker {
  pointer-events: auto;
}

.here {
  stroke: var(--third);
  stroke-width: 2.4;
}
</style>
