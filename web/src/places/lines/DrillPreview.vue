<script setup lang="ts">
/* What an exercise begins with, on the neck and on the staff, before it is laid over the chords. Where nothing can be
   played that is told, with what would fit. */
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { quarter } from '../../api/facts'
import { askLine } from '../../api/kept'
import type { DrillBody, Instrument, Study } from '../../api/client'
import PressNeck from '../../neck/PressNeck.vue'
import { useSetting } from '../../memory/settings'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; task: DrillBody; instrument?: Instrument }>()
const shown = useSetting('preview', true)
const settled = refDebounced(
  computed(() => JSON.stringify(props.task)),
  150,
)
const study = ref<Study>()
const trouble = ref('')
const over = computed(() => {
  const l = props.state.line.value
  return l && { ...l, notes: [], locked: [] }
})
const key = computed(() => `${shown.value} ${settled.value} ${JSON.stringify(over.value)}`)
watch(
  key,
  async (asked) => {
    if (!over.value || !shown.value) return
    try {
      const answer = await askLine.drill(over.value, props.task)
      if (asked === key.value) [study.value, trouble.value] = [answer, '']
    } catch (e) {
      if (asked === key.value) [study.value, trouble.value] = [undefined, e instanceof Error ? e.message : String(e)]
    }
  },
  { immediate: true },
)
const first = computed(() => study.value && { ...study.value.score, measures: study.value.score.measures.slice(0, 1) })
const bar = computed(() => {
  const end = quarter * (study.value?.line.beats ?? 4)
  return (study.value?.score.notes ?? []).filter((n) => n.start < end)
})
const marks = computed(() => bar.value.map((n) => ({ string: n.string, fret: n.fret, degree: n.degree ?? '' })))
const low = computed(() => Math.min(...marks.value.map((m) => m.fret)))
const high = computed(() => Math.max(...marks.value.map((m) => m.fret)))
</script>

<template>
  <details class="preview" :open="shown" @toggle="shown = ($event.target as HTMLDetailsElement).open">
    <summary>how it begins</summary>
    <p v-if="trouble" class="trouble" role="status">{{ trouble }}</p>
    <template v-else-if="first && study">
      <PressNeck
        v-if="instrument && marks.length"
        class="neck"
        :instrument="instrument"
        :low="low"
        :high="high"
        :marks="marks"
        label="the first bar on the neck"
        :height="124"
      />
      <StaffDrawing :score="first" :size="0.62" />
    </template>
  </details>
</template>

<style scoped>
.preview {
  padding: 0.2rem 0;
  border-block: 1px solid var(--rule);
  overflow: hidden;
}

summary {
  color: var(--soft);
  cursor: pointer;
  font-size: var(--text-s);
}

.neck {
  pointer-events: none;
}

.trouble {
  color: var(--soft);
  font-size: var(--text-s);
}
</style>
