<script setup lang="ts">
/* From all box to all chord tones: the line is re-aimed from where it stood when the slider was taken. */
import { computed, ref, shallowRef, watch } from 'vue'
import Slider from 'primevue/slider'
import { askLine } from '../../api/kept'
import type { LineBody } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import TickBox from '../../shell/TickBox.vue'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState }>()
const step = 're-aiming'
const amount = ref(0)
const from = shallowRef<LineBody>()
const turns = ref<{ note: number; from: string; to: string; why: string }[]>([])
const tones = computed(() => {
  const r = props.state.study.value?.report
  const all = r ? r.chordTones + r.palette + r.others : 0
  return r && all ? Math.round((100 * r.chordTones) / all) : undefined
})
/* Every note stays on its fret, and only how far it is bent changes. */
const bends = ref(false)
watch(bends, () => amount.value && aim(amount.value))
function aim(value: number) {
  amount.value = value
  from.value ??= props.state.line.value
  const line = from.value
  if (!line) return
  void props.state.take(
    askLine.blend(line, value / 100, bends.value).then((t) => {
      turns.value = t.turns
      return t.study
    }),
    step,
  )
}
/* Any other change makes a new starting point. */
watch(
  () => props.state.line.value,
  (l) => {
    if (l && props.state.undoName.value === step) return
    from.value = undefined
    amount.value = 0
    turns.value = []
  },
)
const plain = (note: string) => note.replace(/-?\d$/, '')
</script>

<template>
  <div class="bar">
    <p class="hint">Re-aimed at the chords, from where the line stood when the slider was taken.</p>
    <span>all box</span>
    <Slider
      :model-value="amount"
      :min="0"
      :max="100"
      :step="5"
      aria-label="from all box to all chord tones"
      @update:model-value="aim($event as number)"
    />
    <span>all chord tones</span>
    <TickBox v-model="bends">bends only: every note keeps its fret</TickBox>
    <p v-if="tones !== undefined" class="share">
      now <b>{{ tones }}</b> of 100 chord tones
    </p>
    <details v-if="turns.length" class="turns">
      <summary>{{ turns.length }} {{ turns.length === 1 ? 'note' : 'notes' }} changed</summary>
      <ul>
        <li v-for="t in turns" :key="t.note">
          <MusicText :symbol="plain(t.from)" /> to <MusicText :symbol="plain(t.to)" />: {{ t.why }}
        </li>
      </ul>
    </details>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 0.9rem;
  flex-wrap: wrap;
  min-height: var(--target);
}

.hint {
  flex: 1 1 100%;
  color: var(--soft);
}

.bar :deep(.p-slider) {
  flex: 1 1 8rem;
}

summary {
  cursor: pointer;
  min-height: 2rem;
  display: flex;
  align-items: center;
  text-decoration: underline;
}

.turns ul {
  display: grid;
  gap: 0.4rem;
}
</style>
