<script setup lang="ts">
/* An aim in a sentence, and how far it is: reached, or how near. */
import { computed } from 'vue'
import type { LessonResults } from '../../../api/client'
import { useCatalogue } from '../../../api/queries'
import MusicText from '../../../music/MusicText.vue'

const props = defineProps<{
  aim: LessonResults['aims'][number]
  words?: string
  /** what others reached of it, in the place of one's own */
  others?: { pupil: string; aim: LessonResults['aims'][number] }[]
}>()
const catalogue = useCatalogue()
/** Of a kind that adds up, what it is counted in. */
const sum = (kind: string) => catalogue.data.value?.aims.find((k) => k.id === kind && k.adds)?.unit
const far = ({ kind, reached, tries, best, row, times = 0 }: LessonResults['aims'][number]) => {
  if (sum(kind)) return `${Math.round(best)} of ${times} ${sum(kind)}`
  if (!tries) return 'not tried yet'
  const tried = tries === 1 ? 'once tried' : `${tries} tries`
  if (reached) return `reached, ${tried}`
  if (times > 1) return `${row} in a row of ${times}, ${tried}`
  return `best ${Math.round(100 * best)} %, ${tried}`
}
const part = ({ kind, reached, best, row, times = 0 }: LessonResults['aims'][number]) => {
  if (reached) return 1
  if (sum(kind)) return Math.min(1, best / Math.max(1, times))
  return times > 1 ? row / times : best * 0.9
}
const shown = computed(() => props.others ?? [{ pupil: '', aim: props.aim }])
const reached = computed(() => shown.value.length > 0 && shown.value.every((s) => s.aim.reached))
</script>

<template>
  <div class="aim">
    <span class="tick" :class="{ reached }" role="img" :aria-label="reached ? 'reached' : 'not reached'">
      <i v-if="reached" class="pi pi-check" aria-hidden="true" />
    </span>
    <div class="what">
      <p><MusicText :said="aim.says" /></p>
      <small v-if="words">{{ words }}</small>
      <p v-for="(s, i) in shown" :key="i" class="far">
        <b v-if="s.pupil">{{ s.pupil }}</b>
        <span class="bar" aria-hidden="true"><i :style="{ width: `${100 * part(s.aim)}%` }" /></span>
        <small>{{ far(s.aim) }}</small>
      </p>
    </div>
  </div>
</template>

<style scoped>
.aim {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: start;
  gap: 0.8rem;
}

.what {
  flex: 1;
  min-width: 0;
}

p:first-child::first-letter {
  text-transform: uppercase;
}

small {
  color: var(--soft);
}

.far {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.1rem 0.8rem;
}

.far b {
  min-width: 6rem;
}

.tick {
  flex: none;
  display: grid;
  place-items: center;
  width: 1.7rem;
  height: 1.7rem;
  border: 2px solid var(--rule);
  border-radius: 50%;
}

.reached {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--paper);
}

.bar {
  flex: 0 1 18rem;
  height: 0.5rem;
  border: 1px solid var(--rule);
  background: var(--raised);
}

.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
</style>
