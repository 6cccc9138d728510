<script setup lang="ts">
/* The wave of a written line: each bar's chord tones as rails, the line running through them, and how it lands. */
import { quarter } from '../api/facts'
import { useElementSize } from '@vueuse/core'
import { replaceEqualDeep } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { LineBody, Score, Tones } from '../api/client'
import { markOf } from '../music/marks'
import { barsOf, metreOf } from '../music/metre'
import { useRunning, type Clock } from '../notation/useRunning'

const props = defineProps<{
  score: Score
  line: LineBody
  tones: Tones
  verdicts: Map<number, { kind: string; says: string }>
  /** Ticks of what is heard. */
  clock?: Clock
  chosen?: number
}>()
const emit = defineEmits<{ pick: [note: number] }>()

const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 760, height: 0 })
const height = 46
const top = 14
const bars = computed<Score['measures']>((before) =>
  replaceEqualDeep(
    before,
    props.score.measures.filter((m) => m.number > 0),
  ),
)
const total = computed(() => metreOf(barsOf(props.score)).length * quarter)
const x = (tick: number) => (tick / Math.max(1, total.value)) * width.value

/* Figures by themselves: what is drawn from them waits until they change. */
const from = computed(() => props.line.low)
const to = computed(() => props.line.high)
const tones = computed(
  () => new Map(props.tones.chords.map((c) => [c.symbol, c.notes.filter((n) => n.fret >= from.value && n.fret <= to.value)])), // prettier-ignore
)
const all = computed(() => [...[...tones.value.values()].flat(), ...props.score.notes].map((n) => n.midi))
const low = computed(() => Math.min(...all.value, 127) - 1)
const high = computed(() => Math.max(...all.value, 0) + 1)
const y = (midi: number) => top + ((high.value - midi) / Math.max(1, high.value - low.value)) * (height - top - 6)

const chords = computed<{ at: number; symbol: string; to: number }[]>((before) => {
  const list = bars.value.flatMap((m) => m.chords.map((c) => ({ at: m.start + c.beat * quarter, symbol: c.symbol })))
  return replaceEqualDeep(
    before,
    list.map((c, i) => ({ ...c, to: list[i + 1]?.at ?? total.value })),
  )
})
const rails = computed(() => {
  const paths: Record<string, { d: string; dash: string }> = {}
  for (const c of chords.value)
    for (const n of tones.value.get(c.symbol) ?? []) {
      const { colour, rail } = markOf(n.degree)
      const path = (paths[colour] ??= { d: '', dash: rail.dash })
      path.d += `M${(x(c.at) + 2).toFixed(1)} ${y(n.midi).toFixed(1)}H${(x(c.to) - 2).toFixed(1)}`
    }
  return paths
})
const heard = (n: { midi: number; bend?: number; release?: boolean }) =>
  n.midi + (n.release ? 0 : Math.floor((n.bend ?? 0) / 2))
const notes = computed(() =>
  props.score.notes.map((n) => ({
    id: n.id,
    x1: x(n.start),
    x2: x(n.start + n.length),
    y: y(heard(n)),
    colour: markOf(n.degree ?? '').colour,
    verdict: props.verdicts.get(n.id),
  })),
)
const judged = computed(() => notes.value.filter((n) => n.verdict))
const held = computed(() => notes.value.find((n) => n.id === props.chosen))
const path = computed(() => {
  let d = ''
  notes.value.forEach((n, i) => {
    const before = notes.value[i - 1]
    const joined = before && n.x1 - before.x2 < 3 && before.x1 < n.x1
    d += `${joined ? 'L' : 'M'}${n.x1.toFixed(1)} ${n.y.toFixed(1)}H${Math.max(n.x1 + 1, n.x2 - 2).toFixed(1)}`
  })
  return d
})
const running = ref<HTMLElement>()
useRunning(
  running,
  () => props.clock?.(),
  (tick) => ({ x: x(tick) }),
)
function pick(e: MouseEvent) {
  const left = (e.currentTarget as SVGElement).getBoundingClientRect().left
  const at = e.clientX - left
  const near = notes.value.reduce((a, n) => (Math.abs(n.x1 - at) < Math.abs(a.x1 - at) ? n : a), notes.value[0]!)
  if (near) emit('pick', near.id)
}
</script>

<template>
  <div ref="box" class="wave">
    <svg :width="width" :height="height" aria-hidden="true" @click="pick">
      <g v-for="m in bars" :key="m.number" v-memo="[m, width, total]">
        <line
          class="barline"
          :class="{ strong: (m.number - 1) % 4 === 0 }"
          :x1="x(m.start)"
          :x2="x(m.start)"
          y1="0"
          :y2="height"
        />
        <text class="number" :x="x(m.start) + 4" y="12">{{ m.number }}</text>
      </g>
      <path
        v-for="(r, colour) in rails"
        :key="colour"
        class="rail"
        :d="r.d"
        :stroke="colour"
        :stroke-dasharray="r.dash || undefined"
      />
      <path class="line" :d="path" />
      <circle
        v-for="n in judged"
        :key="n.id"
        v-memo="[n]"
        :class="n.verdict!.kind"
        :cx="n.x1 + 3"
        :cy="n.y"
        :r="n.verdict!.kind === 'landed' ? 4.5 : 6"
        :fill="n.verdict!.kind === 'landed' ? n.colour : 'none'"
      >
        <title>{{ n.verdict!.says }}</title>
      </circle>
      <circle v-if="held" class="chosen" :cx="held.x1 + 3" :cy="held.y" r="8" />
    </svg>
    <div ref="running" class="running" />
  </div>
</template>

<style scoped>
.wave {
  position: relative;
  width: 100%;
  overflow: hidden;
  margin-top: 0.5rem;
}

svg {
  display: block;
  border-block: 1px solid var(--rule);
  cursor: pointer;
}

.barline {
  stroke: var(--rule);
}

.strong {
  stroke: var(--ink);
  stroke-width: 1.6;
}

.number {
  font-size: 13px;
  fill: var(--soft);
}

.rail {
  fill: none;
  stroke-width: 2;
  opacity: 0.35;
}

.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
}

.late,
.missed,
.rub {
  stroke: var(--third);
  stroke-width: 2.4;
}

.chosen {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 3;
}

.running {
  position: absolute;
  inset: 0 auto 0 -1.5px;
  width: 3px;
  background: var(--third);
  pointer-events: none;
  will-change: transform;
}

.running:not(.cursor) {
  display: none;
}
</style>
