<script setup lang="ts">
import { useElementSize, useWindowSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Instrument, Place } from '../api/client'
import MarkShape from '../music/MarkShape.vue'
import { markOf, outline } from '../music/marks'
import { dots, geometry, neckHigh, type Frame } from './geometry'
import NeckBoard from './NeckBoard.vue'
import type { Region } from './region'
import { useCursor } from './useCursor'
import { useFretDrag } from './useFretDrag'
import { usePanned } from './usePanned'

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
  window: Region
  /** The scale's places of a shape, and other places of the same pitches. */
  shape?: { places: Place[]; unisons: Place[] }
  spots: Spot[]
  /** The chord's tones outside the window, small and faint. */
  ghosts: { string: number; fret: number; degree: string }[]
  /** A run in words, for those who cannot see the drawing. */
  describe: string
  /** The tones step back. */
  faded?: boolean
}>()
const emit = defineEmits<{ window: [low: number, high: number]; place: [at: Place]; press: [at: Place] }>()

const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 1140, height: 0 })
/* On a low screen it leaves room for what lies below it. */
const { height: tall } = useWindowSize()
const height = computed(() => neckHigh(width.value, tall.value, props.instrument.open.length))
const { view, down, move: draw, up, drawn } = usePanned(() => frame.value, () => props.instrument.last, () => !!props.instrument.left, () => props.window) // prettier-ignore
const frame = computed((): Frame => {
  const last = props.instrument.last
  if (width.value >= 900) return { width: width.value, height: height.value, from: 0, to: last }
  // A narrow screen shows the window and its neighbourhood, large, or what was drawn there.
  if (view.value) return { width: width.value, height: height.value, ...view.value }
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
/* On every string it is one field; on some, one for each of them. */
const bands = computed(() => {
  const { strings } = props.window
  if (!strings?.length) return [{ y: 2, height: frame.value.height - 36 }]
  return strings
    .filter((s) => s <= g.value.strings)
    .map((s) => ({ y: g.value.string(s) - g.value.gap * 0.46, height: g.value.gap * 0.92 }))
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

/* Any place answers, marked or not: pressed, or come to by the arrow keys. */
function placeUnder(e: MouseEvent): Place | undefined {
  if ((e.target as Element).closest('.numbers')) return
  const r = svg.value!.getBoundingClientRect()
  const y = e.clientY - r.top
  const strings = Array.from({ length: g.value.strings }, (_, i) => i + 1)
  const string = strings.toSorted((a, b) => Math.abs(g.value.string(a) - y) - Math.abs(g.value.string(b) - y))[0]!
  return { string, fret: Math.max(0, g.value.fretAt(e.clientX - r.left)) }
}
function under(e: MouseEvent, what: 'press' | 'place') {
  const at = placeUnder(e)
  if (!at || drawn()) return
  if (what === 'press') emit('press', at)
  else emit('place', at)
}
/* A finger may be about to draw the neck along: what it presses sounds when it leaves. */
const fingered = (e: PointerEvent) => e.pointerType !== 'mouse'
const { cursor, key } = useCursor(props, () => g.value.strings, emit)
const told = computed(() => {
  const c = cursor.value
  if (!c) return ''
  const mark = props.spots.find((s) => s.string === c.string && s.fret === c.fret)
  return mark?.title ?? `string ${c.string}, fret ${c.fret}`
})

const svg = ref<SVGSVGElement>()
const { start, move, end, cancel, dragged } = useFretDrag(g, svg, (low, high) => emit('window', low, high)) // prettier-ignore
</script>

<template>
  <div
    ref="box"
    class="neck"
    tabindex="0"
    role="application"
    aria-label="the neck: arrow keys go from place to place, Space sounds one, Enter asks what it is"
    @keydown="key"
    @focus="cursor ??= { string: g.strings, fret: window.low }"
    @blur="cursor = undefined"
  >
    <p class="hidden-text" aria-live="polite">{{ told }}</p>
    <svg
      ref="svg"
      :width="frame.width"
      :height="frame.height"
      role="img"
      :aria-label="describe"
      @click="under($event, 'place')"
      @pointerdown="(down($event), fingered($event) || under($event, 'press'))"
      @pointermove="draw"
      @pointerup="(up($event), fingered($event) && under($event, 'press'))"
      @pointercancel="up"
    >
      <rect
        v-for="(b, i) in bands"
        :key="i"
        class="window"
        :x="shade.x"
        :y="b.y"
        :width="Math.max(shade.width, 0)"
        :height="b.height"
        rx="10"
      />
      <NeckBoard :g="g" :frame="frame" :instrument="instrument" />
      <g class="numbers" @pointerdown="start" @pointermove="move" @pointerup="end" @pointercancel="cancel">
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
      <g v-if="shape" class="shape">
        <circle
          v-for="p in shape.places.filter(shown)"
          :key="`${p.string}:${p.fret}`"
          :cx="g.fret(p.fret)"
          :cy="g.string(p.string)"
          r="8"
        >
          <title>of the shape</title>
        </circle>
        <circle
          v-for="p in shape.unisons.filter(shown)"
          :key="`u${p.string}:${p.fret}`"
          class="unison"
          :cx="g.fret(p.fret)"
          :cy="g.string(p.string)"
          r="8"
        >
          <title>the same pitch once more</title>
        </circle>
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
      >
        <title>{{ n.title }}</title>
        <MarkShape :degree="n.degree" :label="n.label" :r="radius(n.fret)" />
      </g>
      <slot name="over" :g="g" :radius="radius" :shown="shown" />
      <circle
        v-if="cursor && shown(cursor)"
        class="cursor"
        :cx="g.fret(cursor.fret)"
        :cy="g.string(cursor.string)"
        :r="radius(cursor.fret) + 4"
      />
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

.neck:focus {
  outline: none;
}

.cursor {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
  stroke-dasharray: 5 3;
}

.shape circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.5;
}

.shape .unison {
  fill: none;
  stroke-dasharray: 2 3;
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
