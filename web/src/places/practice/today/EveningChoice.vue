<script setup lang="ts">
/* An evening that comes: its charts, its day, and how far each of them is, bar by bar. */
import { computed, watch } from 'vue'
import Button from 'primevue/button'
import MultiSelect from 'primevue/multiselect'
import type { Today } from '../../../api/client'
import { useCharts } from '../../../api/queries'
import MusicText from '../../../music/MusicText.vue'
import { useAddress } from '../../../shell/useAddress'
import { inBars } from './bars'
import { usePlan } from './usePlan'

defineProps<{ said?: string; ready: Today['ready'] }>()
const emit = defineEmits<{ changed: [] }>()
const plan = usePlan()
const charts = useCharts()
const address = useAddress()
const set = (part: Partial<Pick<typeof plan.kept, 'evening' | 'by'>>) => {
  const whole = () => plan.kept.evening.length > 0 && !!plan.kept.by
  const before = whole()
  Object.assign(plan.kept, part)
  if (before || whole()) emit('changed')
}
/* A set leads here with its charts. */
watch(
  () => address.read('for'),
  (from) => {
    if (!from) return
    void address.write({ for: undefined })
    set({ evening: from.split(',').map(Number).filter(Boolean) })
  },
  { immediate: true },
)
const none = computed(() => !plan.kept.evening.length && !plan.kept.by)
</script>

<template>
  <section class="evening">
    <label>
      <span>Ready by</span>
      <input
        :value="plan.kept.by"
        type="date"
        aria-label="the day of the evening"
        @change="set({ by: ($event.target as HTMLInputElement).value })"
      />
    </label>
    <MultiSelect
      :model-value="plan.kept.evening"
      :options="charts.data.value ?? []"
      option-label="title"
      option-value="id"
      placeholder="which charts"
      :max-selected-labels="1"
      selected-items-label="{0} charts"
      aria-label="charts that must be ready"
      @update:model-value="set({ evening: $event ?? [] })"
    />
    <span v-if="plan.kept.evening.length && !plan.kept.by" class="soft">On which day?</span>
    <span v-else-if="said" class="said" role="status">{{ said }}.</span>
    <Button v-if="!none" label="No evening" variant="text" @click="set({ evening: [], by: '' })" />
    <ul v-if="ready.length" class="ready" aria-label="how far the charts are">
      <li v-for="r in ready" :key="r.chart">
        <b>{{ r.title }}</b>
        {{ r.safe }} of {{ r.safe + r.weak.length + r.untried.length }} changes are safe<template v-if="r.bars.length"
          >, into {{ inBars(r.bars) }}</template
        ><template v-if="r.weak.length"
          >; not yet:
          <span v-for="(w, i) in r.weak.slice(0, 4)" :key="i" class="change"
            ><MusicText :symbol="w.from" /> → <MusicText :symbol="w.to" /> {{ w.right }} of {{ w.trials }}</span
          ></template
        ><template v-if="r.untried.length">{{ r.weak.length ? '' : ';' }} {{ r.untried.length }} hardly tried</template
        >.
      </li>
    </ul>
  </section>
</template>

<style scoped>
.evening {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

.soft {
  color: var(--soft);
}

.said::first-letter {
  text-transform: uppercase;
}

.ready {
  flex: 1 0 100%;
  list-style: none;
  margin: 0;
  padding: 0;
}

.ready li {
  padding: 0.15rem 0;
}

.change {
  margin-right: 0.7rem;
  white-space: nowrap;
}

label {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}

input {
  font: inherit;
  min-height: 2.25rem;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--rule);
  border-radius: var(--round);
  padding: 0 0.5rem;
}
</style>
