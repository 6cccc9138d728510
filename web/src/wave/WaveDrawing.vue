<script setup lang="ts">
import { useElementSize, useWindowSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { later } from '../shell/later'
import type { ChartMap, Note, Place, Target } from '../api/client'
import WaveRails, { type Rail } from './WaveRails.vue'
import WaveThread from './WaveThread.vue'
import { spoken } from '../music/text'
import { metreOfSheet } from '../music/metre'
import type { Step } from '../sheet/step'
import { useBarDrag } from '../sheet/useBarDrag'

/* Time runs with the bars, height is pitch. Rails are the chord tones in the window; the thread runs through them. */
const props = defineProps<{
  map: ChartMap
  steps: Step[]
  at: number
  targets: (Target | undefined)[]
  /** The run of each chord in this window. */
  runs: { notes: Note[] }[]
  label: (n: Target) => string
  /** The beat that is heard, from the top of the form. */
  beat?: number
}>()
const emit = defineEmits<{ go: [step: number]; pin: [step: number, place: Place]; span: [from: number, to: number] }>()

/* Keys come once it is drawn. */
const ThreadKeys = later(() => import('./ThreadKeys.vue'))
const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 740, height: 0 })
const { height: tall } = useWindowSize()
const height = computed(() => (tall.value < 900 ? 156 : Math.min(340, Math.max(192, tall.value * 0.22))))
const top = 20

/** A long or busy chart shows as many bars as leave the marks apart, and turns the page. */
const bars = computed(() => props.map.bars.length)
const count = computed(() => {
  const room = Math.floor((bars.value * width.value) / (props.steps.length * 21))
  return Math.max(1, Math.min(bars.value, bars.value <= 24 ? 24 : 16, room < 4 ? room : room - (room % 4)))
})
const first = computed(() =>
  Math.min(Math.floor((props.steps[props.at]?.bar ?? 0) / count.value) * count.value, bars.value - count.value),
)
const metre = computed(() => metreOfSheet(props.map.bars))
/** The beats on which the bars in view begin and are over. */
const from = computed(() => metre.value.startOf(first.value))
const to = computed(() => metre.value.startOf(first.value + count.value))
const wide = computed(() => width.value / (to.value - from.value))
const x = (at: number) => (at - from.value) * wide.value
const left = (s: Step) => x(metre.value.startOf(s.bar) + s.beat - 1)
const visible = computed(() =>
  props.steps.map((s, i) => ({ s, i })).filter(({ s }) => s.bar >= first.value && s.bar < first.value + count.value),
)

const range = computed(() => {
  const all = props.runs.flatMap((r) => r.notes.map((n) => n.midi))
  return { low: Math.min(...all, 127) - 1, high: Math.max(...all, 0) + 1 }
})
const y = (midi: number) =>
  top + ((range.value.high - midi) / Math.max(1, range.value.high - range.value.low)) * (height.value - top - 4)

/** Rails far from the thread step back. */
const rails = computed<Rail[]>(() =>
  visible.value.flatMap(({ s, i }) => {
    const target = props.targets[i]
    return (props.runs[s.chord]?.notes ?? []).map((n) => ({
      step: i,
      n,
      x1: left(s) + 4,
      x2: left(s) + s.length * wide.value - 4,
      y: y(n.midi),
      nearness: target ? Math.max(0, 5 - Math.floor(Math.abs(n.midi - target.midi) / 3)) : 2,
    }))
  }),
)
const markRadius = computed(() => Math.min(11, Math.max(5, wide.value * 1.1)))
const points = computed(() =>
  visible.value.flatMap(({ s, i }) => {
    const t = props.targets[i]
    return t ? [{ t, i, x: left(s) + markRadius.value + 3, y: y(t.midi) }] : []
  }),
)
const line = computed(() => {
  const p = points.value
  if (!p.length) return ''
  let d = `M ${p[0]!.x} ${p[0]!.y}`
  for (let i = 1; i < p.length; i++) {
    const [a, b] = [p[i - 1]!, p[i]!]
    const bow = (b.x - a.x) * 0.55
    d += ` C ${a.x + bow} ${a.y} ${b.x - bow} ${b.y} ${b.x} ${b.y}`
  }
  return d + ` H ${width.value - 2}`
})
const barUnder = (e: PointerEvent) =>
  metre.value.at(from.value + (e.clientX - box.value!.getBoundingClientRect().left) / wide.value).bar
const { drawn, start, move, end, cancel, click } = useBarDrag(barUnder, (a, b) => emit('span', a, b))
const words = computed(
  () =>
    'the thread: ' +
    points.value
      .map(
        ({ t, i }) =>
          `bar ${props.steps[i]!.bar + 1}, ${spoken(t.degree)}, ${spoken(t.note)}, string ${t.string} fret ${t.fret}`,
      )
      .join('; '),
)
</script>

<template>
  <div
    ref="box"
    class="wave"
    @pointerdown="start"
    @pointermove="move"
    @pointerup="end"
    @pointercancel="cancel"
    @click.capture="click"
  >
    <svg :width="width" :height="height" role="img" :aria-label="words">
      <rect
        v-for="{ s, i } in visible.filter((v) => v.i === at)"
        :key="i"
        class="here"
        :x="left(s)"
        y="0"
        :width="s.length * wide"
        :height="height"
      />
      <rect
        v-if="drawn"
        class="here"
        :x="x(metre.startOf(drawn.from))"
        y="0"
        :width="(metre.startOf(drawn.to + 1) - metre.startOf(drawn.from)) * wide"
        :height="height"
      />
      <g v-for="b in count" :key="b">
        <line
          class="barline"
          :class="{ strong: (first + b - 1) % 4 === 0 }"
          :x1="x(metre.startOf(first + b - 1))"
          :x2="x(metre.startOf(first + b - 1))"
          y1="0"
          :y2="height"
        />
        <text class="number" :x="x(metre.startOf(first + b - 1)) + 5" y="14">{{ first + b }}</text>
      </g>
      <WaveRails
        :rails="rails"
        :beat="wide"
        :height="height"
        @go="(i) => emit('go', i)"
        @pin="(i, n) => emit('pin', i, n)"
      />
      <rect
        v-if="props.beat !== undefined && props.beat >= from && props.beat < to"
        class="heard"
        :x="x(props.beat)"
        y="0"
        :width="wide"
        height="6"
      />
      <WaveThread :points="points" :line="line" :radius="markRadius" :label="label" @go="(i) => emit('go', i)" />
    </svg>
    <ThreadKeys
      :steps="steps"
      :at="at"
      :targets="targets"
      :runs="runs"
      @go="(i) => emit('go', i)"
      @pin="(i, n) => emit('pin', i, n)"
    />
  </div>
</template>

<style scoped>
.wave {
  position: relative;
  width: 100%;
  overflow: hidden;
  contain: layout style paint;
  touch-action: pan-y;
}

svg {
  display: block;
  border-block: 1px solid var(--rule);
  font-family: var(--font-text);
}

.here {
  fill: var(--lit);
}

.heard {
  fill: var(--third);
}

.barline {
  stroke: var(--rule);
}

.strong {
  stroke: var(--ink);
  stroke-width: 1.6;
}

.number {
  font-size: 14px;
  fill: var(--soft);
}
</style>
