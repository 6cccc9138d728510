<script setup lang="ts">
import { computed } from 'vue'
import type { Instrument, Note, Position } from '../../api/client'
import MarkShape from '../../music/MarkShape.vue'
import { dots } from '../../neck/geometry'

/* One position as a little neck; drawn in a fixed box that scales to its cell. */
const props = defineProps<{
  instrument: Instrument
  position: Position
  notes: Note[]
  labels: 'degree' | 'note' | 'finger' | 'fret'
  blank?: boolean
  name: string
}>()
const cell = 34
const gap = 25
const count = computed(() => props.position.high - props.position.low + 1)
const strings = computed(() => props.instrument.open.length)
const box = computed(() => ({ width: count.value * cell + 20, height: (strings.value - 1) * gap + 56 }))
const column = (fret: number) => {
  const i = fret - props.position.low
  return 10 + (props.instrument.left ? count.value - 1 - i : i) * cell + cell / 2
}
const row = (s: number) => 17 + (s - 1) * gap
const labelOf = (n: Note) =>
  ({ degree: n.degree, note: n.note, finger: n.finger ? String(n.finger) : 'o', fret: String(n.fret) })[props.labels]
</script>

<template>
  <svg :viewBox="`0 0 ${box.width} ${box.height}`" role="img" :aria-label="name" preserveAspectRatio="xMidYMid meet">
    <line v-for="s in strings" :key="'s' + s" class="string" x1="10" :x2="box.width - 10" :y1="row(s)" :y2="row(s)" />
    <line
      v-for="i in count + 1"
      :key="'f' + i"
      class="wire"
      :class="{ nut: position.low === 0 && i === (instrument.left ? count : 2) }"
      :x1="10 + (i - 1) * cell"
      :x2="10 + (i - 1) * cell"
      :y1="row(1)"
      :y2="row(strings)"
    />
    <text
      v-for="i in count"
      :key="'n' + i"
      :x="column(position.low + i - 1)"
      :y="box.height - 6"
      text-anchor="middle"
      :class="{ marked: dots.includes(position.low + i - 1) }"
    >
      {{ position.low + i - 1 }}
    </text>
    <template v-if="!blank">
      <g v-for="n in notes" :key="n.midi" :transform="`translate(${column(n.fret)} ${row(n.string)})`">
        <MarkShape :degree="n.degree" :label="labelOf(n)" :r="11.5" />
      </g>
    </template>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: 100%;
  min-height: 0;
  font-family: var(--font-text);
}

.string {
  stroke: var(--ink);
  stroke-width: 1;
  opacity: 0.7;
}

.wire {
  stroke: var(--rule);
  stroke-width: 1.4;
}

.nut {
  stroke: var(--ink);
  stroke-width: 4;
}

text {
  font-size: 14px;
  fill: var(--soft);
}

text.marked {
  fill: var(--ink);
  font-weight: 700;
}
</style>
