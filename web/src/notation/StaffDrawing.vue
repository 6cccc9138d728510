<script setup lang="ts">
/* A line on staff and tablature, with its chords above and its degrees below. */
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import type { Score } from '../api/client'
import MarkShape from '../music/MarkShape.vue'
import SvgMusic from '../music/SvgMusic.vue'
import type { Box, Layout, System } from './engrave'

const props = defineProps<{
  score: Score
  /** The note in hand, and ticks of what is heard. */
  chosen?: number
  tick?: number
  /** Where writing goes on: a tick and a string. */
  pen?: { tick: number; string: number }
  fingers?: boolean
  /** How large it is drawn; the usual is read from a metre and a half. */
  size?: number
  /** Drawn around notes: what became of each landing. */
  verdicts?: Map<number, { kind: 'landed' | 'early' | 'late' | 'missed' | 'rub'; says: string }>
  locked?: Set<number>
}>()
const emit = defineEmits<{ pick: [note: number]; bar: [measure: number]; place: [tick: number, string: number] }>()

const frame = ref<HTMLDivElement>()
const host = ref<HTMLDivElement>()
/* What is drawn belongs to the score it was drawn from, which may be one change behind. */
const drawn = shallowRef<{ layout: Layout; score: Score }>()
const layout = computed(() => drawn.value?.layout)
const paper = computed(() => drawn.value?.score ?? props.score)
const { width } = useElementSize(frame)
const scale = props.size ?? 1.12
const inner = computed(() => Math.max(300, Math.floor((width.value - 2) / scale)))
let engraver: typeof import('./engrave') | undefined
async function redraw() {
  engraver ??= await import('./engrave')
  await document.fonts.load('30px Bravura')
  if (host.value && width.value)
    drawn.value = { layout: engraver.draw(host.value, props.score, inner.value, !!props.fingers), score: props.score }
}
onMounted(() => watch([() => props.score, inner, () => props.fingers], redraw, { immediate: true }))

/** Ticks and the x of what begins there, through a bar. */
function points(bar: Box) {
  const l = layout.value!
  const inside = l.spots.filter((s) => s.system === bar.system && s.x >= bar.x && s.x <= bar.x + bar.width)
  const list = [
    { tick: bar.start, x: bar.from },
    ...inside.map((s) => ({ tick: paper.value.notes[s.note]!.start, x: s.x })),
    { tick: (bar.measure || 1) * paper.value.beats * 960 - (bar.measure ? 0 : paper.value.beats * 960), x: bar.to },
  ]
  return list.sort((a, b) => a.tick - b.tick)
}
/** Where a tick lies: between the notes around it. */
function where(tick: number) {
  const bar = layout.value?.boxes.findLast((b) => b.start <= tick)
  if (!bar) return undefined
  const all = points(bar)
  const k = Math.max(
    0,
    all.findLastIndex((p) => p.tick <= tick),
  )
  const [a, b] = [all[k]!, all[k + 1] ?? all[k]!]
  const part = b.tick > a.tick ? (tick - a.tick) / (b.tick - a.tick) : 0
  return { x: a.x + (b.x - a.x) * Math.min(1, part), system: layout.value!.systems[bar.system]! }
}
const cursor = computed(() => {
  const at = props.tick === undefined ? undefined : where(props.tick)
  return at && { x: at.x, y: at.system.staffTop - 8, height: at.system.tabBottom - at.system.staffTop + 16 }
})
const stringY = (system: System, string: number) => system.tabBottom - (paper.value.strings - string) * 13
const pen = computed(() => {
  const at = props.pen && where(props.pen.tick)
  return at && { x: at.x, y: stringY(at.system, props.pen!.string) }
})
/* What is heard, or written next, stays in view. */
const marks = ref<SVGSVGElement>()
const follow = (css: string) => marks.value?.querySelector(css)?.scrollIntoView({ block: 'nearest' })
watch(
  () => cursor.value?.y,
  (y) => y !== undefined && void nextTick(() => follow('.cursor')),
)
watch(
  () => [props.pen?.tick, props.pen?.string],
  () => void nextTick(() => follow('.pen')),
)
/** A click on the strings of a bar: the nearest half beat and string. */
function place(e: MouseEvent, bar: Box) {
  const box = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
  const [x, y] = [(e.clientX - box.left) / scale, (e.clientY - box.top) / scale]
  const all = points(bar)
  const k = Math.max(
    0,
    all.findLastIndex((p) => p.x <= x),
  )
  const [a, b] = [all[k]!, all[k + 1] ?? all[k]!]
  const tick = a.tick + (b.x > a.x ? ((x - a.x) / (b.x - a.x)) * (b.tick - a.tick) : 0)
  const system = layout.value!.systems[bar.system]!
  const string = paper.value.strings - Math.round((system.tabBottom - y) / 13)
  emit('place', Math.round(tick / 240) * 240, Math.max(1, Math.min(paper.value.strings, string)))
}
const fret = (note: number) => {
  const n = paper.value.notes[note]!
  return n.dead ? '×' : String(n.fret)
}
const says = computed(() =>
  paper.value.notes
    .map((n) => `${n.note.replace(/-?\d+$/, '')} ${n.degree ?? ''} on string ${n.string} fret ${n.fret}`)
    .join(', '),
)
</script>

<template>
  <div ref="frame" class="frame">
    <div
      class="sheet"
      :style="{ height: `${(layout?.height ?? 200) * scale}px` }"
      role="img"
      :aria-label="`${paper.title}, on staff and tablature: ${says}`"
    >
      <div ref="host" class="music" :style="{ transform: `scale(${scale})` }" />
      <svg v-if="layout" ref="marks" class="over" :viewBox="`0 0 ${inner} ${layout.height}`" :width="inner * scale">
        <template v-for="b in layout.boxes" :key="`bar${b.measure}`">
          <rect
            v-if="locked?.has(b.measure)"
            class="locked"
            :x="b.x"
            :y="layout.systems[b.system]!.chords - 22"
            :width="b.width"
            :height="layout.systems[b.system]!.height"
          />
          <text class="number" :x="b.x + 3" :y="layout.systems[b.system]!.staffTop - 7">{{ b.measure || '' }}</text>
          <rect
            class="bar"
            :data-measure="b.measure"
            :x="b.x"
            :y="layout.systems[b.system]!.chords - 24"
            :width="b.width"
            height="30"
            @click="emit('bar', b.measure)"
          />
        </template>
        <rect
          v-for="b in layout.boxes"
          :key="`tab${b.measure}`"
          class="bar"
          :x="b.x"
          :y="stringY(layout.systems[b.system]!, 1) - 8"
          :width="b.width"
          :height="(paper.strings - 1) * 13 + 16"
          @click="place($event, b)"
        />
        <rect v-if="pen" class="pen" :x="pen.x - 9" :y="pen.y - 9" width="18" height="18" rx="3" />
        <rect v-if="cursor" class="cursor" :x="cursor.x - 2" :y="cursor.y" width="4" :height="cursor.height" />
        <text v-for="(s, i) in layout.symbols" :key="`chord${i}`" class="chord" :x="s.x" :y="s.y" font-size="21">
          <SvgMusic :text="s.text" :size="21" />
        </text>
        <g v-for="s in layout.spots" :key="s.note">
          <rect
            class="spot"
            :class="{ chosen: chosen === s.note }"
            :data-note="s.note"
            :x="s.x - 12"
            :y="layout.systems[s.system]!.staffTop - 10"
            width="24"
            :height="layout.systems[s.system]!.degrees - layout.systems[s.system]!.staffTop + 22"
            @click="emit('pick', s.note)"
          />
          <g pointer-events="none">
            <rect
              class="patch"
              :x="s.x - fret(s.note).length * 4 - 1"
              :y="s.tab - 6"
              :width="fret(s.note).length * 8 + 2"
              height="12"
            />
            <text class="fret" :x="s.x" :y="s.tab + 4.6">{{ fret(s.note) }}</text>
          </g>
          <line
            v-if="paper.notes[s.note]!.scoop"
            class="scoop"
            :x1="s.x - 17"
            :y1="s.tab + (paper.notes[s.note]!.scoop! > 0 ? 6 : -6)"
            :x2="s.x - 8"
            :y2="s.tab"
          />
          <g
            v-if="paper.notes[s.note]!.degree"
            :transform="`translate(${s.x} ${layout.systems[s.system]!.degrees + s.stack * 20})`"
            pointer-events="none"
          >
            <MarkShape :degree="paper.notes[s.note]!.degree!" :r="10.5" :label="paper.notes[s.note]!.degree" />
          </g>
          <g
            v-if="verdicts?.has(s.note)"
            class="verdict"
            :class="verdicts.get(s.note)!.kind"
            :data-verdict="verdicts.get(s.note)!.kind"
            :transform="`translate(${s.x} ${layout.systems[s.system]!.tabBottom + 3})`"
            pointer-events="none"
          >
            <title>{{ verdicts.get(s.note)!.says }}</title>
            <path v-if="verdicts.get(s.note)!.kind === 'landed'" d="M -11 0 V 5 H 11 V 0" />
            <path v-else d="M -6 0 L 6 7 M 6 0 L -6 7" />
          </g>
        </g>
      </svg>
    </div>
  </div>
</template>

<style scoped>
.frame {
  width: 100%;
}

.sheet {
  position: relative;
  overflow: hidden;
}

.music {
  transform-origin: 0 0;
}

.music :deep(svg) {
  display: block;
}

.music :deep(text),
.music :deep(rect),
.music :deep(path[stroke='none']) {
  fill: var(--ink);
  stroke: none;
}

.music :deep(path:not([stroke='none'])) {
  fill: none;
  stroke: var(--ink);
}

.music :deep(.vf-stave path) {
  stroke: var(--ghost);
}

/* The frets are ours: larger, in the figures of the neck. */
.music :deep(.vf-tabnote > rect),
.music :deep(.vf-tabnote > rect + text) {
  display: none;
}

.fret {
  font-size: 13px;
  font-weight: 700;
  fill: var(--ink);
  text-anchor: middle;
}

.patch {
  fill: var(--raised);
}

.over {
  position: absolute;
  inset: 0 auto auto 0;
  overflow: visible;
}

.chord {
  font-family: var(--font-display);
  font-weight: 600;
  fill: var(--ink);
}

.number {
  font-size: 10px;
  fill: var(--soft);
}

.spot,
.bar {
  fill: transparent;
  cursor: pointer;
}

.spot.chosen {
  fill: var(--lit-rule);
  fill-opacity: 0.25;
  stroke: var(--lit-rule);
}

.pen {
  fill: none;
  stroke: var(--third);
  stroke-width: 2;
  pointer-events: none;
}

.locked {
  fill: var(--lit);
  fill-opacity: 0.5;
}

.cursor {
  fill: var(--third);
  opacity: 0.75;
}

.scoop {
  stroke: var(--ink);
  stroke-width: 1.4;
}

.verdict path {
  fill: none;
  stroke-width: 2.4;
  stroke: var(--third);
}

.verdict.landed path {
  stroke: var(--seventh);
}
</style>
