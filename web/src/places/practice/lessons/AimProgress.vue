<script setup lang="ts">
/* An aim in a sentence, and how far it is: reached, or how near. */
import { computed } from 'vue'
import type { LessonResults } from '../../../api/client'
import MusicText from '../../../music/MusicText.vue'

const props = defineProps<{ aim: LessonResults['aims'][number]; words?: string; fresh?: boolean }>()
const far = computed(() => {
  const { kind, reached, tries, best, row, times = 0 } = props.aim
  if (kind === 'minutes') return `${Math.round(best)} of ${times} minutes`
  if (!tries) return 'not tried yet'
  const tried = tries === 1 ? 'once tried' : `${tries} tries`
  if (times > 1) return `${row} in a row of ${times}, ${tried}`
  return reached ? `reached, ${tried}` : `best ${Math.round(100 * best)} %, ${tried}`
})
const part = computed(() => {
  const { kind, reached, best, row, times = 0 } = props.aim
  if (reached) return 1
  if (kind === 'minutes') return Math.min(1, best / Math.max(1, times))
  return times > 1 ? row / times : best * 0.9
})
</script>

<template>
  <div class="aim">
    <span
      class="tick"
      :class="{ reached: aim.reached }"
      role="img"
      :aria-label="aim.reached ? 'reached' : 'not reached'"
    >
      <i v-if="aim.reached" class="pi pi-check" aria-hidden="true" />
    </span>
    <p>
      <MusicText :text="aim.says" />
      <small v-if="words">{{ words }}</small>
      <template v-if="!fresh">
        <span class="bar" aria-hidden="true"><i :style="{ width: `${100 * part}%` }" /></span>
        <small>{{ far }}</small>
      </template>
    </p>
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

p {
  flex: 1;
  min-width: 0;
}

p::first-letter {
  text-transform: uppercase;
}

small {
  display: block;
  color: var(--soft);
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
  display: block;
  height: 0.5rem;
  max-width: 24rem;
  margin: 0.25rem 0 0.1rem;
  border: 1px solid var(--rule);
  background: var(--raised);
}

.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
</style>
