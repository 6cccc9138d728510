<script setup lang="ts">
import { engrave } from '../music/text'
import { computed, ref } from 'vue'
import type { Note } from '../api/client'
import { markOf, type Mark } from '../music/marks'

export interface Rail {
  step: number
  n: Note
  x1: number
  x2: number
  y: number
  /** 5 at the thread, 0 far from it. */
  nearness: number
}

/* Chord tones as rails: one path a colour and depth, so that a long chart stays quick. A click takes the nearest. */
const props = defineProps<{ rails: Rail[]; beat: number; height: number }>()
const emit = defineEmits<{ go: [step: number]; pin: [step: number, n: Note] }>()

const paths = computed(() => {
  const out: Record<string, { colour: string; opacity: number; d: string; rail: Mark['rail'] }> = {}
  for (const r of props.rails) {
    const { colour, rail } = markOf(r.n.degree)
    const path = (out[colour + r.nearness] ??= { colour, rail, opacity: 0.16 + r.nearness * 0.12, d: '' })
    path.d += `M${r.x1.toFixed(1)} ${r.y.toFixed(1)}H${r.x2.toFixed(1)}`
  }
  return Object.values(out)
})

const area = ref<SVGRectElement>()
const near = ref<Rail>()
function find(e: MouseEvent) {
  const box = area.value!.getBoundingClientRect()
  const [x, y] = [e.clientX - box.left, e.clientY - box.top]
  const under = props.rails.filter((r) => x >= r.x1 - 5 && x <= r.x2 + 5)
  const rail = under.reduce<Rail | undefined>(
    (a, r) => (!a || Math.abs(r.y - y) < Math.abs(a.y - y) ? r : a),
    undefined,
  )
  return { rail: rail && Math.abs(rail.y - y) < 7 ? rail : undefined, step: under[0]?.step }
}
function take(e: MouseEvent) {
  const { rail, step } = find(e)
  if (rail) emit('pin', rail.step, rail.n)
  else if (step !== undefined) emit('go', step)
}
</script>

<template>
  <g>
    <path
      v-for="(p, i) in paths"
      :key="i"
      :d="p.d"
      :stroke="p.colour"
      :opacity="p.opacity"
      :stroke-width="p.rail.width"
      :stroke-dasharray="p.rail.dash || undefined"
      class="rails"
    />
    <line
      v-if="near"
      class="near"
      :x1="near.x1"
      :x2="near.x2"
      :y1="near.y"
      :y2="near.y"
      :stroke="markOf(near.n.degree).colour"
    />
    <rect
      ref="area"
      class="area"
      x="0"
      y="0"
      width="100%"
      :height="height"
      @mousemove="near = find($event).rail"
      @mouseleave="near = undefined"
      @click="take"
    >
      <title>
        {{
          near
            ? `aim for the ${engrave(near.n.degree)}, ${engrave(near.n.note)} at ${near.n.string}:${near.n.fret}`
            : 'go to this bar; on a rail, aim for its note'
        }}
      </title>
    </rect>
  </g>
</template>

<style scoped>
.rails {
  fill: none;
}

.near {
  stroke-width: 6;
  stroke-linecap: round;
}

.area {
  fill: transparent;
  cursor: pointer;
}
</style>
