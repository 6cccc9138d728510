<script setup lang="ts">
/* The plan was gone through: what came of it, and what the next one begins with. */
import { computed, ref, shallowRef } from 'vue'
import type { Today } from '../../../api/client'
import { readToday, useLogPage } from '../../../api/log'
import MusicText from '../../../music/MusicText.vue'
import { tonight } from './tonight'
import { usePlan, wishOf } from './usePlan'

const plan = usePlan()
const { begun, items, seed } = plan.kept
const page = useLogPage(computed(() => ({ limit: 500 })))
const planned = items.reduce((n, i) => n + (i.kind === 'rest' ? 0 : i.minutes), 0)
const came = computed(() => (begun && page.data.value ? tonight(page.data.value.rows, begun, planned) : []))
const next = ref('')
const ready = shallowRef<Today['ready']>([])
/* What counts by tomorrow is known by now. */
void readToday({ ...wishOf(plan.kept), seed: seed + 1 }).then(
  (now) => {
    next.value = now.items.find((i) => ['changes', 'calls', 'line'].includes(i.kind))?.title ?? ''
    ready.value = now.ready
  },
  () => {},
)
const safe = computed(() =>
  ready.value.map((r) => `${r.title}: ${r.safe} of ${r.safe + r.weak.length + r.untried.length} changes are safe`),
)
</script>

<template>
  <div role="status">
    <p class="big">That was it for today.</p>
    <p v-if="page.data.value">
      <MusicText :said="came.length ? `${came.join('; ')}.` : 'Nothing was heard or answered, so nothing was noted.'" />
    </p>
    <p v-if="safe.length"><MusicText :said="`For the evening: ${safe.join('; ')}.`" /></p>
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
