<script setup lang="ts">
/* Where a hand takes the notes of the stretch. A press on another place of the note in hand fixes it, and the others follow. */
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Hearing, HeardStretch, NoteByEar } from '../../api/client'
import MarkShape from '../../music/MarkShape.vue'
import NeckBoard from '../../neck/NeckBoard.vue'
import { geometry } from '../../neck/geometry'

const props = defineProps<{ heard: HeardStretch; hearing: Hearing; note?: NoteByEar }>()
const emit = defineEmits<{ place: [string: number, fret: number]; choose: [id: number] }>()
const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box, { width: 470, height: 0 })
const instrument = computed(() => props.heard.instrument)
const laid = computed(() => props.heard.line?.notes ?? [])
const degree = computed(() => new Map(props.heard.told.map((t) => [t.id, t.degree ?? ''])))
/** Where else the note in hand lies. */
const others = computed(() => {
  const n = props.note
  if (!n) return []
  return instrument.value.midi.flatMap((open, i) => {
    const fret = n.pitch - open
    return fret >= 0 && fret <= instrument.value.last ? [{ string: i + 1, fret }] : []
  })
})
const frame = computed(() => {
  const frets = laid.value.map((n) => n.fret).filter((f) => f > 0)
  const room = Math.max(5, Math.floor(width.value / 58))
  const low = Math.min(props.hearing.high ? props.hearing.low : 99, ...frets)
  const from = Math.max(0, Math.min((low === 99 ? 1 : low) - 1, instrument.value.last - room))
  return { width: Math.max(280, width.value), height: 190, from, to: Math.min(instrument.value.last, from + room), top: 18, foot: 34 } // prettier-ignore
})
const g = computed(() => geometry(frame.value, instrument.value))
const frets = computed(() =>
  Array.from({ length: frame.value.to - frame.value.from + 1 }, (_, i) => frame.value.from + i),
)
const shown = (p: { fret: number }) => p.fret >= frame.value.from && p.fret <= frame.value.to
/* What lies at a place is drawn once; the one in hand on top. */
const marks = computed(() => {
  const at = new Map<
    string,
    { id: number; string: number; fret: number; bend: number; degree: string; held: boolean }
  >()
  for (const n of laid.value) {
    const { id } = n
    const { string } = n
    if (!id || !string) continue
    const held = id === props.note?.id
    const key = `${n.string} ${n.fret}`
    if (at.get(key)?.held) continue
    at.set(key, { id, string, fret: n.fret, bend: (n.bend ?? 0) / 2, degree: degree.value.get(id) ?? '', held }) // prettier-ignore
  }
  return [...at.values()].filter(shown).sort((a, b) => Number(a.held) - Number(b.held))
})
const elsewhere = computed(() =>
  others.value.filter(
    (p) => shown(p) && !marks.value.some((m) => m.held && m.string === p.string && m.fret === p.fret),
  ),
)
</script>

<template>
  <div ref="box" class="neck">
    <svg :width="frame.width" :height="frame.height" role="group" aria-label="where a hand takes them">
      <NeckBoard :g="g" :frame="frame" :instrument="instrument" />
      <text
        v-for="f in frets.filter((f) => f > 0)"
        :key="f"
        :x="g.fret(f)"
        :y="frame.height - 8"
        text-anchor="middle"
        class="fret"
      >
        {{ f }}
      </text>
      <circle
        v-for="p in elsewhere"
        :key="`${p.string} ${p.fret}`"
        :cx="g.fret(p.fret)"
        :cy="g.string(p.string)"
        r="9"
        class="other"
        role="button"
        tabindex="0"
        :aria-label="`take it on string ${p.string}, fret ${p.fret}`"
        @click="emit('place', p.string, p.fret)"
        @keydown.enter.prevent="emit('place', p.string, p.fret)"
      >
        <title>take it on string {{ p.string }}, fret {{ p.fret }}</title>
      </circle>
      <g v-for="m in marks" :key="m.id" class="mark" :class="{ faint: note && !m.held }" @click="emit('choose', m.id)">
        <path
          v-if="m.bend && m.held"
          class="bend"
          :d="`M${g.fret(m.fret) + 11} ${g.string(m.string) - 4} q 20 -16 ${Math.abs(g.wire(m.fret + 1) - g.wire(m.fret)) * m.bend - 14} -2`"
        />
        <g :transform="`translate(${g.fret(m.fret)} ${g.string(m.string)})`">
          <MarkShape :degree="m.degree" :r="11" :label="m.degree" />
        </g>
        <circle v-if="m.held" :cx="g.fret(m.fret)" :cy="g.string(m.string)" r="16" class="held" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.neck {
  min-width: 0;
}

svg {
  display: block;
  max-width: 100%;
}

.fret {
  font-size: 14px;
  fill: var(--ink);
}

.faint {
  opacity: 0.45;
}

.mark,
.other {
  cursor: pointer;
}

.other {
  fill: var(--paper);
  stroke: var(--ghost);
  stroke-width: 1.6;
  stroke-dasharray: 3 2.4;
}

.held {
  fill: none;
  stroke: var(--lit-rule);
  stroke-width: 3;
}

.bend {
  fill: none;
  stroke: var(--third);
  stroke-width: 2.6;
}
</style>
