<script setup lang="ts">
/* A line on staff and tablature, with its chords above and its degrees below. */
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import type { LineNote, Score } from '../api/client'
import { saidOf } from './said'
import type { Box, Layout, Row } from './engrave'
import { freshOf, goneOf, holders } from './ahead'
import { placeOf, tickAt } from './along'
import StaffSystem from './StaffSystem.vue'
import { few, useInSight } from './useInSight'
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
  /** every line is there, also out of sight: it is to be printed, or to leave as a picture */
  whole?: boolean
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

const rows = computed(() => layout.value?.rows ?? [])
const where = (tick: number) => placeOf(rows.value, tick)
const pen = computed(() => {
  const at = props.pen && where(props.pen.tick)
  return at && { ...at, ...props.pen! }
})
/* Each line of music is told of its own notes alone, so that the others need not be patched. */
const holder = computed(() => holders(rows.value))
const gone = computed(() => goneOf(holder.value, props.ahead?.gone ?? []))
const fresh = computed(() => freshOf(rows.value, props.ahead?.fresh ?? []))
/* Lines out of sight keep their room, and cost nothing else. */
const sight = useInSight()
const sounding = shallowRef<Row>()
const isThere = (r: Row, i: number) =>
  props.whole ||
  rows.value.length <= few ||
  sight.has(i) ||
  r === pen.value?.row ||
  r === chosenRow.value ||
  r === sounding.value
const chosenRow = computed(() => holder.value.get(props.chosen ?? NaN))
/* What is heard, or written next, stays in view. */
const sheet = ref<HTMLElement>()
/* In the frame that draws it, since the place has to be known then anyway. */
const follow = (css: string) =>
  requestAnimationFrame(() => sheet.value?.querySelector(css)?.scrollIntoView({ block: 'nearest' }))
const running = ref<HTMLElement>()
let along: { row: Row; y: number; zoom: number } | undefined
useRunning(
  running,
  () => props.clock?.(),
  (tick) => {
    const at = where(tick)
    if (!at || !sheet.value) return undefined
    if (along?.row !== at.row) {
      const drawn = sight.at(rows.value.indexOf(at.row)) as HTMLElement | undefined
      if (!drawn) return undefined
      sounding.value = at.row
      const { staffTop, tabBottom } = at.row.at
      const zoom = drawn.clientWidth / inner.value
      along = { row: at.row, y: drawn.offsetTop + (staffTop - 8) * zoom, zoom }
      running.value!.style.height = `${(tabBottom - staffTop + 16) * zoom}px`
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
const place = (row: Row, bar: Box, x: number, string: number) => emit('place', tickAt(row, bar, x), string)
const says = computed(() => saidOf(paper.value.notes))
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
      <div
        v-for="(r, i) in rows"
        :key="i"
        :ref="(el) => sight.watch(i, el as Element | null)"
        class="row"
        :style="{ aspectRatio: `${inner} / ${r.at.height}` }"
      >
        <StaffSystem
          v-if="isThere(r, i)"
          :row="r"
          :swing="paper.swing && i === 0"
          :width="inner"
          :gone="gone.get(r)"
          :fresh="fresh.get(r)"
          :chosen="chosenRow === r ? chosen : undefined"
          :pen="pen?.row === r ? pen : undefined"
          :verdicts="verdicts"
          :locked="locked"
          @pick="emit('pick', $event)"
          @bar="emit('bar', $event)"
          @place="(...at) => place(r, ...at)"
        />
      </div>
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

.row {
  min-height: 0;
  margin-bottom: 0.9rem;
  break-inside: avoid;
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
