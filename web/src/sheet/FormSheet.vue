<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Bar, Chord, Sheet, Target } from '../api/client'
import { metreOfSheet } from '../music/metre'
import PickupRow from './PickupRow.vue'
import SheetBar from './SheetBar.vue'
import { barUnder, useBarDrag } from './useBarDrag'

const props = defineProps<{
  bars: Bar[]
  chords: Chord[]
  /** What leads to the first bar. */
  pickup?: Sheet['pickup']
  /** The bar and chord in hand, from 0; none in a preview. */
  at?: { bar: number; change: number }
  /** The next change, to be seen coming. */
  next?: { bar: number; change: number }
  /** The thread's targets, chord by chord through the form. */
  targets?: (Target | undefined)[]
  /** Of two joined boxes the one to be in, chord by chord through the form. */
  boxes?: (string | undefined)[]
  /** What is heard: the beat from the top, and the loop. */
  sound?: { beat?: number; loop?: { from: number; to: number } }
}>()
const emit = defineEmits<{ go: [bar: number, change: number]; loop: [bar: number]; span: [from: number, to: number] }>()
const metre = computed(() => metreOfSheet(props.bars))
const { drawn, start, move, end, cancel, click } = useBarDrag(barUnder, (from, to) => emit('span', from, to))
const loops = (bar: number) => {
  const d = drawn.value
  const l = d ? { from: metre.value.startOf(d.from), to: metre.value.startOf(d.to + 1) } : props.sound?.loop
  const [from, to] = [metre.value.startOf(bar), metre.value.startOf(bar + 1)]
  if (!l || l.to <= from || l.from >= to) return undefined
  return {
    from: Math.max(0, l.from - from),
    to: Math.min(to, l.to) - from,
    begins: l.from >= from,
    ends: l.to <= to,
  }
}
const heard = (bar: number) => {
  const b = props.sound?.beat
  const at = b === undefined ? undefined : metre.value.at(b)
  return at?.bar === bar ? at.beat + 1 : undefined
}

/** A metre is told where it changes; at the top only where it is not that of most bars. */
const usual = computed(() => {
  const all = props.bars.map((b) => b.beats)
  const often = (n: number) => all.filter((x) => x === n).length
  return [...new Set(all)].sort((a, b) => often(b) - often(a))[0]
})
/** Rows as players read them: four bars, or where the chart breaks them. */
const rows = computed(() => {
  const out: { bar: Bar; index: number }[][] = []
  props.bars.forEach((bar, index) => {
    const row = out.at(-1)
    if (!row || bar.row || row.length === 4) out.push([{ bar, index }])
    else row.push({ bar, index })
  })
  return out
})
/** Which chord of the form each bar begins with. */
const firsts = computed(() => {
  let n = 0
  return props.bars.map((b) => (n += b.changes.length) - b.changes.length)
})

const sheet = ref<HTMLElement>()
watch(
  () => props.at?.bar,
  async () => {
    await nextTick()
    await new Promise(requestAnimationFrame) // measuring before the frame would lay the page out twice
    const current = sheet.value?.querySelector<HTMLElement>('.bar.on')
    if (!current || !sheet.value) return
    const top = current.offsetTop - sheet.value.offsetTop
    if (top < sheet.value.scrollTop || top + current.offsetHeight > sheet.value.scrollTop + sheet.value.clientHeight)
      sheet.value.scrollTop = top - current.offsetHeight
  },
  { immediate: true },
)
</script>

<template>
  <div
    ref="sheet"
    class="sheet"
    :class="{ dense: bars.some((b) => b.changes.length > 1) }"
    role="group"
    aria-label="form sheet"
    v-on="at ? { pointerdown: start, pointermove: move, pointerup: end, pointercancel: cancel } : {}"
    @click.capture="click"
  >
    <PickupRow v-if="pickup" :pickup="pickup" :beat="sound?.beat" />
    <div v-for="(row, r) in rows" :key="r" class="row">
      <SheetBar
        v-for="{ bar, index } in row"
        :key="index"
        :bar="bar"
        :index="index"
        :chords="chords"
        :metre="bar.beats !== (bars[index - 1]?.beats ?? usual) ? bar.beats : undefined"
        :here="at?.bar === index ? at.change : undefined"
        :soon="next?.bar === index ? next.change : undefined"
        :live="!!at"
        :targets="targets"
        :boxes="boxes"
        :first="firsts[index]!"
        :loop="loops(index)"
        :heard="heard(index)"
        @go="(change) => emit('go', index, change)"
        @loop="emit('loop', index)"
      />
    </div>
  </div>
</template>

<style scoped>
.sheet {
  border-block: 2px solid var(--ink);
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  scrollbar-width: thin;
  touch-action: pan-y; /* sideways a finger draws over bars */
}

/* Rows out of sight cost nothing to step past. */
.row {
  content-visibility: auto;
  contain-intrinsic-height: auto 2.9rem;
  flex: 1 0 2.9rem;
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  border-bottom: 1px solid var(--rule);
}

.row:last-child {
  border-bottom: 0;
}

/* Four bars fit a phone where each has one chord. */
@media (max-width: 35em) {
  .dense .row {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    grid-auto-rows: 3.5rem;
    flex-basis: auto;
  }
}
</style>
