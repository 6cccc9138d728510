<script setup lang="ts">
/* A line on staff and tablature, with its chords above and its degrees below. */
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import type { LineNote, Score } from '../api/client'
import { notesOf } from '../document/study'
import type { Box, Layout } from './engrave'
import StaffSystem from './StaffSystem.vue'
import { useRunning, type Clock } from './useRunning'

const props = defineProps<{
  score: Score
  /** The note in hand, by its number, and ticks of what is heard. */
  chosen?: number
  clock?: Clock
  /** Where writing goes on: a tick and a string. */
  pen?: { tick: number; string: number; open?: boolean }
  /** Notes that the score does not hold yet, and those it holds that are there no more. */
  ahead?: { fresh: LineNote[]; gone: Set<number> }
  fingers?: boolean
  /** so close that a whole chorus is in sight */
  close?: boolean
  /** How large it is drawn; the usual is read from a metre and a half. */
  size?: number
  /** Drawn around notes: what became of each landing. */
  verdicts?: Map<number, { kind: 'landed' | 'early' | 'late' | 'missed' | 'rub' | 'unheard'; says: string }>
  locked?: Set<number>
}>()
const emit = defineEmits<{ pick: [note: number]; bar: [measure: number]; place: [tick: number, string: number] }>()

const frame = ref<HTMLDivElement>()
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
  if (width.value)
    drawn.value = {
      layout: engraver.draw(
        props.score,
        inner.value,
        { fingers: !!props.fingers, close: !!props.close },
        drawn.value?.layout,
      ),
      score: props.score,
    }
}
onMounted(() => watch([() => props.score, inner, () => props.fingers, () => props.close], redraw, { immediate: true }))

/** Ticks and the x of what begins there, through a bar; worked out once for each layout. */
const known = new Map<Box, { tick: number; x: number }[]>()
watch(layout, () => known.clear(), { flush: 'sync' })
function points(bar: Box) {
  const before = known.get(bar)
  if (before) return before
  const l = layout.value!
  const inside = l.spots.filter((s) => s.system === bar.system && s.x >= bar.x && s.x <= bar.x + bar.width)
  const list = [
    { tick: bar.start, x: bar.from },
    ...inside.map((s) => ({ tick: notesOf(paper.value).get(s.note)!.start, x: s.x })),
    { tick: (bar.measure || 1) * paper.value.beats * 960 - (bar.measure ? 0 : paper.value.beats * 960), x: bar.to },
  ]
  known.set(
    bar,
    list.sort((a, b) => a.tick - b.tick),
  )
  return list
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
const pen = computed(() => {
  const at = props.pen && where(props.pen.tick)
  return at && { ...at, string: props.pen!.string, open: props.pen!.open }
})
/* One list for each line of music, made once for each layout: what is drawn stays where it hangs. */
const systems = computed(() => {
  const l = layout.value
  return l?.systems.map((at, i) => ({
    at,
    drawing: l.drawings[i]!,
    boxes: l.boxes.filter((b) => b.system === i),
    spots: l.spots.filter((s) => s.system === i),
    symbols: l.symbols.filter((s) => s.system === i),
  }))
})
const fresh = computed(() =>
  (props.ahead?.fresh ?? []).flatMap((n) => {
    const at = where(n.start)
    return at
      ? [{ id: n.id ?? 0, system: at.system, x: at.x, string: n.string || 1, text: n.dead ? '×' : String(n.fret) }]
      : []
  }),
)
/* What is heard, or written next, stays in view. */
const sheet = ref<HTMLElement>()
const follow = (css: string) => sheet.value?.querySelector(css)?.scrollIntoView({ block: 'nearest' })
const running = ref<HTMLElement>()
let along: { system: unknown; y: number; zoom: number } | undefined
useRunning(
  running,
  () => props.clock?.(),
  (tick) => {
    const at = where(tick)
    if (!at || !sheet.value) return undefined
    if (along?.system !== at.system) {
      const row = sheet.value.querySelectorAll<HTMLElement>('.system')[layout.value!.systems.indexOf(at.system)]
      if (!row) return undefined
      const zoom = row.clientWidth / inner.value
      along = { system: at.system, y: row.offsetTop + (at.system.staffTop - 8) * zoom, zoom }
      running.value!.style.height = `${(at.system.tabBottom - at.system.staffTop + 16) * zoom}px`
      void nextTick(() => follow('.cursor'))
    }
    return { x: at.x * along.zoom, y: along.y }
  },
)
watch(layout, () => (along = undefined))
watch(
  () => [props.pen?.tick, props.pen?.string],
  () => void nextTick(() => follow('.pen')),
)
/** A click at an x of a bar's strings: the nearest quarter of a beat. */
function place(bar: Box, x: number, string: number) {
  const all = points(bar)
  const k = Math.max(
    0,
    all.findLastIndex((p) => p.x <= x),
  )
  const [a, b] = [all[k]!, all[k + 1] ?? all[k]!]
  const tick = a.tick + (b.x > a.x ? ((x - a.x) / (b.x - a.x)) * (b.tick - a.tick) : 0)
  emit('place', Math.round(tick / 240) * 240, string)
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
      v-if="layout"
      ref="sheet"
      class="sheet"
      role="img"
      :aria-label="`${paper.title}, on staff and tablature: ${says}`"
      :style="{ maxWidth: `${inner * scale}px` }"
    >
      <StaffSystem
        v-for="(s, i) in systems"
        :key="i"
        :first="i === 0"
        :paper="paper"
        :drawing="s.drawing"
        :width="inner"
        :at="s.at"
        :boxes="s.boxes"
        :spots="s.spots"
        :symbols="s.symbols"
        :gone="ahead?.gone"
        :fresh="fresh.length ? fresh.filter((f) => f.system === s.at) : undefined"
        :chosen="chosen"
        :pen="pen?.system === s.at ? pen : undefined"
        :verdicts="verdicts"
        :locked="locked"
        @pick="emit('pick', $event)"
        @bar="emit('bar', $event)"
        @place="place"
      />
      <div ref="running" class="running" />
    </div>
  </div>
</template>

<style scoped>
.frame {
  width: 100%;
  min-height: 12rem;
}

/* What is heard is measured from here. */
.sheet {
  position: relative;
}

.running {
  position: absolute;
  inset: 0 auto auto -2px;
  width: 4px;
  background: var(--third);
  opacity: 0.75;
  pointer-events: none;
  will-change: transform;
}

.running:not(.cursor) {
  display: none;
}

@media print {
  .running {
    display: none;
  }

  .frame {
    min-height: 0;
  }
}
</style>
