<script setup lang="ts">
/* What the core can do with the line: write bars, put in licks, dress it, lay an exercise over the chords. */
import { computed } from 'vue'
import type { Instrument, LineNote } from '../../api/client'
import { useCatalogue } from '../../api/queries'
import DressForm from './DressForm.vue'
import DrillForm from './DrillForm.vue'
import LickForm from './LickForm.vue'
import WriteForm from './WriteForm.vue'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; bar: number; tab: string; note?: LineNote; instrument?: Instrument }>()
const catalogue = useCatalogue()
const bars = computed(() => props.state.study.value?.score.measures.filter((m) => m.number > 0).length ?? 12)
</script>

<template>
  <section v-if="catalogue.data.value" class="work-panel">
    <WriteForm v-if="tab === 'write'" :state="state" :bars="bars" />
    <LickForm v-else-if="tab === 'lick'" :state="state" :bar="bar" :bars="bars" :note="note" />
    <DressForm v-else-if="tab === 'dress'" :state="state" />
    <DrillForm v-else :state="state" :instrument="instrument" />
  </section>
</template>

<style scoped>
.work-panel :deep(.form) {
  display: grid;
  gap: 0.35rem;
  margin-top: 0.5rem;
}

.work-panel :deep(.p-inputnumber-input) {
  width: 3.6rem;
}

/* What is chosen by the keyboard does not come to lie under the buttons at the foot. */
.work-panel :deep(.p-select),
.work-panel :deep(input),
.work-panel :deep(button) {
  scroll-margin-bottom: 6.5rem;
}

.work-panel :deep(.do) {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  padding: 0.4rem 0;
  position: sticky;
  bottom: 0;
  background: var(--paper);
}

.work-panel :deep(.hint) {
  color: var(--soft);
  font-size: var(--text-s);
}
</style>
