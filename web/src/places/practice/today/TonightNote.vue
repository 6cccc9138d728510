<script setup lang="ts">
/* The plan was gone through: what came of it, and what the next one begins with. */
import { computed, ref } from 'vue'
import { readToday, useLogPage } from '../../../api/log'
import MusicText from '../../../music/MusicText.vue'
import { tonight } from './tonight'

const { begun, minutes, seed } = defineProps<{ begun: string | undefined; minutes: number; seed: number }>()
const page = useLogPage(computed(() => ({ limit: 500 })))
const came = computed(() => (begun && page.data.value ? tonight(page.data.value.rows, begun) : []))
const next = ref('')
/* What counts by tomorrow is known by now. */
void readToday({ minutes, seed: seed + 1 }).then(
  ({ items }) => (next.value = items.find((i) => ['changes', 'calls', 'line'].includes(i.kind))?.title ?? ''),
  () => {},
)
</script>

<template>
  <div role="status">
    <p class="big">That was it for today.</p>
    <p v-if="page.data.value">
      <MusicText :said="came.length ? `${came.join('; ')}.` : 'Nothing was heard or answered, so nothing was noted.'" />
    </p>
    <p v-if="next" class="soft">The next plan begins with: <MusicText :said="next" />.</p>
  </div>
</template>

<style scoped>
.big {
  font: 600 var(--text-xl) var(--font-display);
}

.soft {
  color: var(--soft);
}
</style>
