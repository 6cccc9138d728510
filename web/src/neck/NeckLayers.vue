<script setup lang="ts">
import { engrave } from '../music/text'
import { computed } from 'vue'
import type { Move, Note, Place, Target } from '../api/client'
import MarkShape from '../music/MarkShape.vue'
import { markOf } from '../music/marks'
import type { Geometry } from './geometry'
import { holds, type Region } from './region'

/* What lies over the tones of the chord: the next chord's tones, the ways to them, and bends. Ways pass under the string, bends over it. */
const props = defineProps<{
  g: Geometry
  radius: (fret: number) => number
  shown: (n: { fret: number }) => boolean
  window: Region
  /** The tones of the chord in hand, and of the next, in this window. */
  tones: Note[]
  arrivals: Note[]
  moves: Move[]
  label: (n: { degree: string; note: string; fret: number; finger?: number }) => string
  /** The thread's way into the next change. */
  from?: Target
  to?: Target
  /** A move or bend that is pointed at. */
  lit: { from: Place; to: Place }[]
  /** Ways along a string from one box into the other. */
  slides: { from: Place; to: Place }[]
  bent: { string: number; fret: number; halfSteps: number; degree?: string }[]
  dimmed: Set<string>
}>()
const emit = defineEmits<{ target: [place: Place] }>()

const key = (p: Place) => `${p.string}:${p.fret}`
const inside = (p: Place) => holds(props.window, p) && props.shown(p)
const taken = computed(() => new Set(props.tones.map(key)))
/** The side an arrival is reached from: along the string, or across it. */
const side = (to: Place) => {
  for (const m of props.moves)
    for (const p of m.places) {
      if (key(p.to) !== key(to) || m.halfSteps === 0) continue
      if (p.from.string === p.to.string) return p.from.fret > p.to.fret ? 'up' : 'down'
      return p.from.string < p.to.string ? 'above' : 'below'
    }
  return ''
}
const nextTones = computed(() =>
  props.arrivals.filter(inside).map((n) => ({ ...n, held: taken.value.has(key(n)), side: side(n) })),
)

const x = (p: Place) => props.g.fret(p.fret)
const y = (p: Place) => props.g.string(p.string)
/** An arc from one place to another, ending short of the mark. */
function arc(from: Place, to: Place) {
  const [x1, y1, x2, y2] = [x(from), y(from), x(to), y(to)]
  const lift = from.string === to.string ? 40 : 0
  const bow = from.string === to.string ? 0 : 22
  const [mx, my] = [(x1 + x2) / 2 + bow, (y1 + y2) / 2 + lift]
  const r = props.radius(to.fret) + 3
  const d = Math.hypot(x2 - mx, y2 - my) || 1
  const [ex, ey] = [x2 - ((x2 - mx) / d) * r, y2 - ((y2 - my) / d) * r]
  const start = Math.hypot(mx - x1, my - y1) || 1
  const [sx, sy] = [x1 + ((mx - x1) / start) * r, y1 + ((my - y1) / start) * r]
  const turn = Math.atan2(ey - my, ex - mx)
  const wing = (a: number) => `${(ex - 8 * Math.cos(turn + a)).toFixed(1)} ${(ey - 8 * Math.sin(turn + a)).toFixed(1)}`
  return {
    line: `M ${sx.toFixed(1)} ${sy.toFixed(1)} Q ${mx.toFixed(1)} ${my.toFixed(1)} ${ex.toFixed(1)} ${ey.toFixed(1)}`,
    head: `M ${wing(0.5)} L ${ex.toFixed(1)} ${ey.toFixed(1)} L ${wing(-0.5)}`,
  }
}
const way = computed(() => {
  if (!props.from || !props.to || key(props.from) === key(props.to)) return
  if (!props.shown(props.from) || !props.shown(props.to)) return
  return { ...arc(props.from, props.to), colour: markOf(props.to.degree).colour }
})
/** A bend rises off the string and lands above the fret whose pitch it reaches. */
const bends = computed(() =>
  props.bent.filter(inside).map((b) => {
    const [x1, y1] = [x(b), y(b)]
    const x2 = props.g.fret(b.fret + Math.max(b.halfSteps, 0.5))
    const top = y1 - Math.min(27, props.g.gap * 0.66) // below the marks of the next string
    return {
      ...b,
      x2,
      top,
      path: `M ${x1 + 4} ${y1 - 12} C ${x1} ${top} ${(x1 + x2) / 2} ${top} ${x2} ${top}`,
      colour: b.degree ? markOf(b.degree).colour : 'var(--soft)',
    }
  }),
)
/** A slide is a slanted stroke between two frets, under the string it goes along. */
const slid = computed(() =>
  props.slides
    .filter((s) => inside(s.from) && inside(s.to))
    .map((s) => {
      const [x1, x2, at] = [x(s.from), x(s.to), y(s.from)]
      const [a, b] = [x1 + (x2 - x1) * 0.36, x1 + (x2 - x1) * 0.64]
      return { ...s, path: `M ${a} ${at + 9} L ${b} ${at - 9}` }
    }),
)
const fade = (layer: string) => ({ faded: props.dimmed.has(layer) })
</script>

<template>
  <g class="layer" :class="fade('arrivals')" data-layer="arrivals">
    <g
      v-for="(n, i) in nextTones"
      :key="i"
      class="arrival"
      :data-arrival="key(n)"
      :transform="
        n.held ? `translate(${x(n) + radius(n.fret)} ${y(n) - radius(n.fret)})` : `translate(${x(n)} ${y(n)})`
      "
      @click.stop="emit('target', n)"
    >
      <title>
        the {{ engrave(n.degree) }} of the next chord, {{ engrave(n.note) }}{{ n.held ? ': it stays' : '' }}
      </title>
      <template v-if="n.held"><MarkShape :degree="n.degree" :r="8.5" hollow /></template>
      <template v-else>
        <circle
          v-if="to && key(to) === key(n)"
          class="chosen"
          :r="Math.min(radius(n.fret) + 5, g.gap - radius(n.fret) - 1.5)"
        />
        <MarkShape :degree="n.degree" :label="label(n)" :r="radius(n.fret) * 0.88" hollow />
        <path
          v-if="n.side"
          class="tick"
          :stroke="markOf(n.degree).colour"
          :d="
            {
              up: `M ${radius(n.fret) * 1.05} 0 h 9`,
              down: `M ${-radius(n.fret) * 1.05} 0 h -9`,
              above: `M 0 ${-radius(n.fret)} v -8`,
              below: `M 0 ${radius(n.fret) * 1.05} v 8`,
            }[n.side]
          "
        />
      </template>
    </g>
    <g v-if="way" class="way" :stroke="way.colour"><path :d="way.line" /><path :d="way.head" /></g>
  </g>
  <g class="layer" :class="fade('bends')" data-layer="bends">
    <g v-for="(b, i) in bends" :key="i" class="bend" :stroke="b.colour" :data-bend="`${key(b)}+${b.halfSteps}`">
      <path :d="b.path" />
      <path :d="`M ${b.x2} ${b.top - 5} L ${b.x2} ${b.top + 5}`" />
    </g>
  </g>
  <g class="layer" :class="fade('bends')" data-layer="slides">
    <g v-for="s in slid" :key="key(s.from)" class="slide" :data-slide="key(s.from)">
      <title>slide from the ♭3 to the 3, from one box into the other</title>
      <path :d="s.path" />
    </g>
  </g>
  <g class="lit">
    <g v-for="(m, i) in lit.filter((p) => shown(p.from) && shown(p.to))" :key="i">
      <circle :cx="x(m.from)" :cy="y(m.from)" :r="radius(m.from.fret) + 5" />
      <circle :cx="x(m.to)" :cy="y(m.to)" :r="radius(m.to.fret) + 5" />
      <line :x1="x(m.from)" :y1="y(m.from)" :x2="x(m.to)" :y2="y(m.to)" />
    </g>
  </g>
</template>

<style scoped>
.layer {
  transition: opacity 120ms;
}

.faded {
  opacity: 0.16;
}

.arrival {
  cursor: pointer;
}

.chosen {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 3;
}

.tick {
  stroke-width: 3;
  stroke-linecap: round;
}

.way path,
.bend path {
  fill: none;
  stroke-width: 2.8;
  stroke-linecap: round;
  stroke-linejoin: round;
}

.bend path {
  stroke-width: 2.2;
}

.slide path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.6;
  stroke-linecap: round;
}

.lit circle {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 4;
}

.lit line {
  stroke: var(--lit-rule);
  stroke-width: 4;
  stroke-dasharray: 2 7;
  stroke-linecap: round;
}
</style>
