<script setup lang="ts">
import { useElementSize, useWindowSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Instrument } from '../api/client'
import MarkShape from '../music/MarkShape.vue'
import { markOf, outline } from '../music/marks'
import { dots, geometry } from './geometry'
import NeckBoard from './NeckBoard.vue'

export interface Spot {
  string: number
  fret: number
  degree: string
  label: string
  /** Told on hover and to a screen reader. */
  title: string
}

const props = defineProps<{
  instrument: Instrument
  window: { low: number; high: number }
  spots: Spot[]
  /** The chord's tones outside the window, small and faint. */
  ghosts: { string: number; fret: number; degree: string }[]
  /** A run in words, for those who cannot see the drawing. */
  describe: string
  /** The tones step back. */
  faded?: boolean
}>()
const emit = defineEmits<{ window: [low: number, high: number]; place: [spot: Spot] }>()

const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 1140, height: 0 })
/* On a low screen it leaves room for what lies below it. */
const { height: tall } = useWindowSize()
const height = computed(() => (width.value < 700 ? 262 : tall.value < 880 ? 224 : 258))
const frame = computed(() => {
  const last = props.instrument.last
  if (width.value >= 900) return { width: width.value, height: height.value, from: 0, to: last }
  // A narrow screen shows the window and its neighbourhood, large.
  const room = Math.max(7, Math.floor(width.value / 52))
  const from = Math.max(0, Math.min(props.window.low - 1, last - room))
  return {
    width: width.value,
    height: height.value,
    from,
    to: Math.max(Math.min(last, from + room), props.window.high),
  }
})
const g = computed(() => geometry(frame.value, props.instrument))
const frets = computed(() =>
  Array.from({ length: frame.value.to - frame.value.from + 1 }, (_, i) => frame.value.from + i),
)
const shown = (n: { fret: number }) => n.fret >= frame.value.from && n.fret <= frame.value.to

const shade = computed(() => {
  const { low, high } = props.window
  const a = low === 0 ? g.value.fret(0) + (props.instrument.left ? 18 : -18) : g.value.wire(low - 1)
  const b = g.value.wire(high)
  return { x: Math.min(a, b) + 1, width: Math.abs(b - a) - 2 }
})
const radius = (fret: number) => Math.min(17, g.value.gap * 0.46, fret === 0 ? 16 : g.value.half(fret) * 0.92)

/** The faint tones, one path a colour: a step then moves five things and not fifty. */
const faint = computed(() => {
  const paths: Record<string, string> = {}
  for (const n of props.ghosts.filter(shown)) {
    const { shape, colour } = markOf(n.degree)
    paths[colour] = (paths[colour] ?? '') + outline(shape, 6, g.value.fret(n.fret), g.value.string(n.string))
  }
  return paths
})

/* Dragging along the fret numbers sets the player's own window. */
const drag = ref<{ from: number; to: number }>()
const svg = ref<SVGSVGElement>()
const fretUnder = (e: PointerEvent) => g.value.fretAt(e.clientX - svg.value!.getBoundingClientRect().left)
function dragStart(e: PointerEvent) {
  const fret = fretUnder(e)
  drag.value = { from: fret, to: fret }
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
}
function dragMove(e: PointerEvent) {
  if (drag.value) drag.value.to = fretUnder(e)
}
function dragEnd() {
  if (!drag.value) return
  const { from, to } = drag.value
  drag.value = undefined
  if (from !== to) emit('window', Math.min(from, to), Math.max(from, to))
}
const dragged = computed(() => {
  if (!drag.value) return
  const [low, high] = [Math.min(drag.value.from, drag.value.to), Math.max(drag.value.from, drag.value.to)]
  const [a, b] = [g.value.wire(Math.max(low - 1, 0)), g.value.wire(high)]
  return { x: Math.min(a, b), width: Math.abs(b - a) }
})
</script>

<template>
  <div ref="box" class="neck">
    <svg ref="svg" :width="frame.width" :height="frame.height" role="img" :aria-label="describe">
      <rect class="window" :x="shade.x" y="2" :width="Math.max(shade.width, 0)" :height="frame.height - 36" rx="10" />
      <NeckBoard :g="g" :frame="frame" :instrument="instrument" />
      <g
        class="numbers"
        @pointerdown="dragStart"
        @pointermove="dragMove"
        @pointerup="dragEnd"
        @pointercancel="drag = undefined"
      >
        <rect x="0" :y="frame.height - 33" :width="frame.width" height="33" fill="transparent">
          <title>drag over the fret numbers to choose your own window</title>
        </rect>
        <rect
          v-if="dragged"
          class="drag"
          :x="dragged.x"
          :y="frame.height - 31"
          :width="dragged.width"
          height="28"
          rx="6"
        />
        <text
          v-for="n in frets.filter((f) => f > 0)"
          :key="'n' + n"
          :x="g.fret(n)"
          :y="g.numbers"
          text-anchor="middle"
          :class="{ marked: dots.includes(n), inside: n >= window.low && n <= window.high }"
        >
          {{ n }}
        </text>
      </g>
      <path v-for="(d, colour) in faint" :key="colour" class="ghost" :d="d" :fill="colour" />
      <slot name="under" :g="g" :radius="radius" :shown="shown" />
      <g
        v-for="(n, i) in spots.filter(shown)"
        :key="i"
        :transform="`translate(${g.fret(n.fret)} ${g.string(n.string)})`"
        :data-spot="n.string + ':' + n.fret"
        class="spot"
        :class="{ faded }"
        :data-degree="n.degree"
        @click="emit('place', n)"
      >
        <title>{{ n.title }}</title>
        <MarkShape :degree="n.degree" :label="n.label" :r="radius(n.fret)" />
      </g>
      <slot name="over" :g="g" :radius="radius" :shown="shown" />
    </svg>
  </div>
</template>

<style scoped>
.neck {
  width: 100%;
  contain: layout style paint;
  overflow: hidden;
}

svg {
  display: block;
  font-family: var(--font-text);
  touch-action: pan-y;
}

.window {
  fill: var(--lit);
}

.numbers {
  cursor: ew-resize;
}

.numbers text {
  font-size: 15px;
  fill: var(--soft);
  pointer-events: none;
}

.numbers .marked {
  fill: var(--ink);
}

.numbers .inside {
  font-weight: 700;
  fill: var(--ink);
}

.drag {
  fill: var(--lit-rule);
  opacity: 0.4;
}

.spot {
  cursor: pointer;
}

.faded {
  opacity: 0.2;
}

.ghost {
  opacity: 0.38;
}
</style>
