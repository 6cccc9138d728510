<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import { useCatalogue } from '../../api/queries'
import { useCommand } from '../../shell/useCommands'
import type { Bench } from './useBench'
import type { PlanState } from './usePlan'
import { later } from '../../shell/later'

const ThreadList = later(() => import('./ThreadList.vue'))
const ThreadTargets = later(() => import('./ThreadTargets.vue'))

/* The thread in words, and what it is made from. */
const props = defineProps<{ bench: Bench; plan: PlanState; heard: boolean }>()
const emit = defineEmits<{ hear: []; land: [] }>()
const catalogue = useCatalogue()
const back = useCommand('takeBack')
const choosing = ref(false)
const listing = ref(false)
const now = computed(() => props.plan.plan.value)
const thread = computed(() => props.bench.thread.value)
const mode = computed(() => now.value.thread || 'guide-tones')
const modeName = computed(() => catalogue.data.value?.threads.find((t) => t.id === mode.value)?.name ?? '')
</script>

<template>
  <header class="thread">
    <h2>Wave</h2>
    <p v-if="thread?.problem" class="problem" role="alert">
      {{ thread.problem.message }}
      <Button
        v-if="thread.problem.pinned"
        label="Drop that target"
        size="small"
        variant="outlined"
        @click="plan.pin(thread.problem.step)"
      />
      <Button
        v-else-if="now.strings"
        label="Use all strings"
        size="small"
        variant="outlined"
        @click="plan.set({ strings: undefined })"
      />
    </p>
    <p v-else class="about">
      <span
        >{{ modeName
        }}<template v-if="bench.choruses.value > 1">
          · chorus {{ bench.chorus.value + 1 }} of {{ bench.choruses.value }}</template
        ></span
      >
      · {{ thread?.halfSteps }} half steps, {{ Math.round((thread?.mm ?? 0) / 10) }} cm of neck
    </p>
    <span class="do">
      <Button
        v-if="plan.canUndo.value"
        icon="pi pi-undo"
        size="small"
        variant="text"
        :aria-label="`undo ${plan.undoName.value}`"
        v-bind="back"
      />
      <Button
        label="Hear"
        :icon="heard ? 'pi pi-check' : 'pi pi-volume-up'"
        size="small"
        variant="text"
        :aria-pressed="heard"
        :title="heard ? 'the band plays without the thread' : 'hear the thread over the band'"
        @click="emit('hear')"
      />
      <Button
        label="Land it"
        size="small"
        variant="text"
        title="practise it: the whole form, on a chord tone at every change"
        @click="emit('land')"
      />
      <Button label="List" size="small" variant="text" @click="listing = true" />
      <Button label="Targets" size="small" variant="outlined" @click="choosing = true" />
    </span>
    <ThreadList v-model="listing" :bench="bench" />
    <ThreadTargets v-model="choosing" :bench="bench" :plan="plan" :mode="mode" />
  </header>
</template>

<style scoped>
.thread {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  flex-wrap: wrap;
  gap: 0 0.75rem;
  min-height: 2.2rem;
}

.thread {
  container-type: inline-size;
}

/* Where there is no room beside the name it stands in a line of its own. */
@container (max-width: 620px) {
  .about {
    order: 1;
    flex-basis: 100%;
  }
}

h2 {
  font-size: var(--text-l);
}

.about,
.problem {
  color: var(--soft);
  font-size: var(--text-s);
}

.problem {
  color: var(--danger);
}

.do {
  margin-left: auto;
  display: flex;
  gap: 0.25rem;
  white-space: nowrap;
}
</style>
