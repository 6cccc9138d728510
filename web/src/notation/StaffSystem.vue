<script setup lang="ts">
/* One line of music: the engraving, and over it chords, frets, degrees and what can be pressed. */
import { computed } from 'vue'
import MarkShape from '../music/MarkShape.vue'
import SvgMusic from '../music/SvgMusic.vue'
import NoteSigns from './NoteSigns.vue'
import type { Box, Row } from './engrave'

const props = defineProps<{
  row: Row
  swing?: boolean
  width: number
  chosen?: number
  pen?: { x: number; tick: number; string: number; open?: boolean }
  /** Notes of the engraving that are there no more, and those it does not show yet. */
  gone?: Set<number>
  fresh?: { id: number; x: number; string: number; text: string }[]
  verdicts?: Map<number, { kind: 'landed' | 'early' | 'late' | 'missed' | 'rub' | 'unheard'; says: string }>
  locked?: Set<number>
}>()
const emit = defineEmits<{
  pick: [note: number]
  bar: [measure: number]
  place: [bar: Box, x: number, string: number]
}>()

/** Called at every patch: what hangs there already stays. */
const hang = (el: unknown) => {
  const frame = el as HTMLElement | null
  const { drawing } = props.row
  if (frame && frame.firstChild !== drawing) frame.replaceChildren(drawing)
}
const at = computed(() => props.row.at)
const stringY = (string: number) => at.value.tabBottom - (props.row.strings - string) * at.value.string
/* Where the lines are close together the figures are larger in proportion. */
const close = computed(() => at.value.string < 13)
const sizes = computed(() =>
  close.value ? { fret: 15.5, figure: 4.8, mark: 14.3, chord: 26 } : { fret: 13, figure: 4, mark: 10.5, chord: 21 },
)
const heads = computed(() =>
  props.row.spots.map((s) => ({ ...s, n: s.note, fret: s.note.dead ? '×' : String(s.note.fret) })),
)
function press(e: MouseEvent, bar: Box) {
  const svg = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
  const scale = svg.width / props.width
  const y = (e.clientY - svg.top) / scale + at.value.top
  const string = props.row.strings - Math.round((at.value.tabBottom - y) / at.value.string)
  emit('place', bar, (e.clientX - svg.left) / scale, Math.max(1, Math.min(props.row.strings, string)))
}
</script>

<template>
  <div class="system">
    <div :ref="hang" class="music" />
    <svg class="over" :viewBox="`0 ${at.top} ${width} ${at.height}`">
      <g v-for="b in row.boxes" :key="`bar${b.measure}`" v-memo="[b, at, width, locked?.has(b.measure)]">
        <rect
          v-if="locked?.has(b.measure)"
          class="locked"
          :x="b.x"
          :y="at.chords - 22"
          :width="b.width"
          :height="at.height"
        />
        <!-- Over the bar line, where notes are rare. -->
        <text
          class="number"
          :style="close && { fontSize: '17px' }"
          :x="b === row.boxes[0] ? b.x + 3 : b.x"
          :text-anchor="b === row.boxes[0] ? 'start' : 'middle'"
          :y="at.staffTop - 5"
        >
          {{ b.measure || '' }}
        </text>
        <rect
          class="bar"
          :data-measure="b.measure"
          :x="b.x"
          :y="at.chords - 24"
          :width="b.width"
          height="30"
          @click="emit('bar', b.measure)"
        />
        <rect
          class="bar"
          :x="b.x"
          :y="stringY(1) - 8"
          :width="b.width"
          :height="(row.strings - 1) * at.string + 16"
          @click="press($event, b)"
        />
      </g>
      <text v-if="swing" class="feel" x="2" :y="at.chords">swing</text>
      <text v-for="(s, i) in row.sections" :key="`section${i}`" class="section" :x="s.x" y="12">{{ s.text }}</text>
      <text v-for="(s, i) in row.symbols" :key="`chord${i}`" class="chord" :x="s.x" :y="s.y" :font-size="sizes.chord">
        <SvgMusic :symbol="s.text" :size="sizes.chord" />
      </text>
      <g
        v-for="s in heads"
        :key="s.n.id"
        v-memo="[s, close, chosen === s.n.id, gone?.has(s.n.id), verdicts?.get(s.n.id)]"
      >
        <rect
          class="spot"
          :class="{ chosen: chosen === s.n.id }"
          :data-note="s.n.id"
          :x="s.x - 12"
          :y="at.staffTop - 10"
          width="24"
          :height="at.degrees - at.staffTop + 22"
          @click="emit('pick', s.n.id)"
        />
        <g pointer-events="none">
          <rect
            class="patch"
            :x="s.x - s.fret.length * sizes.figure - 1"
            :y="s.tab - 6"
            :width="s.fret.length * 2 * sizes.figure + 2"
            height="12"
          />
          <text
            v-if="!gone?.has(s.n.id)"
            class="fret"
            :class="{ found: s.n.placeGuessed }"
            :x="s.x"
            :y="s.tab + sizes.fret * 0.355"
            :font-size="sizes.fret"
          >
            {{ s.fret }}
          </text>
        </g>
        <text
          v-if="s.n.rhythmGuessed || s.n.bendGuessed || s.n.joinGuessed"
          class="about"
          :x="s.x"
          :y="stringY(1) - 9"
          pointer-events="none"
        >
          ≈
        </text>
        <text v-if="s.n.named" class="named" :x="s.x" :y="at.chords + 19" pointer-events="none">
          <SvgMusic :symbol="s.n.named" :size="14" />
        </text>
        <NoteSigns
          v-if="s.n.signs"
          :signs="s.n.signs!"
          :x="s.x"
          :y="s.tab"
          :above="stringY(1) - (s.n.vibrato && !s.n.bend ? 21 : 9)"
          :aside="!!s.n.bend"
          :between="at.string"
          :fret="s.n.fret"
        />
        <g v-if="s.n.degree" :transform="`translate(${s.x} ${at.degrees + s.stack * 22})`" pointer-events="none">
          <MarkShape :degree="s.n.degree!" :r="sizes.mark" :label="s.n.degree" />
        </g>
        <g
          v-if="verdicts?.has(s.n.id)"
          class="verdict"
          :class="verdicts.get(s.n.id)!.kind"
          :data-verdict="verdicts.get(s.n.id)!.kind"
          :transform="`translate(${s.x} ${at.tabBottom + (close ? 3 : 10)})`"
          pointer-events="none"
        >
          <title>{{ verdicts.get(s.n.id)!.says }}</title>
          <path v-if="verdicts.get(s.n.id)!.kind === 'landed'" d="M -11 0 V 5 H 11 V 0" />
          <path v-else-if="verdicts.get(s.n.id)!.kind === 'late'" d="M 11 0 V 5 H -11 m 5 -4 l -5 4 l 5 4" />
          <path v-else-if="verdicts.get(s.n.id)!.kind === 'early'" d="M -11 0 V 5 H 11 m -5 -4 l 5 4 l -5 4" />
          <path v-else-if="verdicts.get(s.n.id)!.kind === 'unheard'" d="M -6 4 H 6" />
          <path v-else d="M -6 0 L 6 7 M 6 0 L -6 7" />
        </g>
      </g>
      <g v-for="f in fresh" :key="`fresh${f.id}`" pointer-events="none" data-fresh>
        <rect
          class="patch"
          :x="f.x - f.text.length * sizes.figure - 1"
          :y="stringY(f.string) - 6"
          :width="f.text.length * 2 * sizes.figure + 2"
          height="12"
        />
        <text class="fret" :x="f.x" :y="stringY(f.string) + sizes.fret * 0.355" :font-size="sizes.fret">
          {{ f.text }}
        </text>
      </g>
      <rect
        v-if="pen"
        class="pen"
        :data-tick="pen.tick"
        :class="{ open: pen.open }"
        :x="pen.x - 9"
        :y="stringY(pen.string) - 9"
        width="18"
        height="18"
        rx="3"
      />
    </svg>
  </div>
</template>

<style scoped>
.system {
  /* What is out of sight costs neither layout nor paint. */
  content-visibility: auto;
  position: relative;
  height: 100%;
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
  font-weight: 700;
  fill: var(--ink);
  text-anchor: middle;
}

.fret.found {
  font-style: italic;
  font-weight: 500;
  fill: var(--soft);
}

.section {
  font: 600 13px var(--font-text);
  fill: var(--soft);
}

.named {
  font: 600 14px var(--font-display);
  fill: var(--soft);
  text-anchor: middle;
}

.about {
  font-size: 15px;
  font-weight: 600;
  fill: var(--third);
  text-anchor: middle;
}

.patch {
  fill: var(--raised);
}

.over {
  position: absolute;
  inset: 0;
  width: 100%;
  overflow: visible;
}

.chord {
  font-family: var(--font-display);
  font-weight: 600;
  fill: var(--ink);
}

.feel {
  font: italic 600 15px var(--font-display);
  fill: var(--soft);
}

.number {
  font-size: 13px;
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

.pen.open {
  stroke-dasharray: 4 3;
}

.locked {
  fill: var(--lit);
  fill-opacity: 0.5;
}

.verdict path {
  fill: none;
  stroke-width: 2.4;
  stroke: var(--third);
}

.verdict.unheard path {
  stroke: var(--ghost);
  stroke-dasharray: 2 3;
}

.verdict.landed path {
  stroke: var(--seventh);
}

@media print {
  .pen {
    display: none;
  }

  .spot.chosen {
    fill: transparent;
    stroke: none;
  }
}
</style>
