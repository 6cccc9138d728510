<script setup lang="ts">
/* One take on staff and tablature, or two beneath each other, change by change. */
import { computed } from 'vue'
import { useQueries } from '@tanstack/vue-query'
import { answer, api, type KeptTake } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import { verdictsOf } from '../../listen/verdicts'

const props = defineProps<{ takes: KeptTake[] }>()
/* How the written line of a take is judged as a line. */
const studies = useQueries({
  queries: computed(() =>
    props.takes.map((t) => ({
      queryKey: ['study of a take', t.id],
      queryFn: () => answer(api.POST('/api/lines/study', { body: t.line })),
      staleTime: Infinity,
    })),
  ),
})
const difference = computed(() => {
  const [a, b] = props.takes.toSorted((x, y) => x.created.localeCompare(y.created))
  if (!a || !b) return ''
  const share = (t: KeptTake) => (t.changes ? Math.round((100 * t.landed) / t.changes) : 0)
  const [before, after] = [share(a), share(b)]
  const tempo = b.tempo === a.tempo ? 'at the same tempo' : `at ${b.tempo} instead of ${a.tempo}`
  return before === after
    ? `${after} % of the changes both times, ${tempo}.`
    : `${after} % of the changes, ${Math.abs(after - before)} ${after > before ? 'more' : 'fewer'} than before, ${tempo}.`
})
</script>

<template>
  <section class="compared" aria-label="the takes chosen">
    <p v-if="difference" class="difference" role="status">{{ difference }}</p>
    <article v-for="(t, i) in takes" :key="t.id">
      <p>
        <b><MusicText :said="`${t.good}.`" /></b> Try: <MusicText :said="t.try" />.
      </p>
      <div class="sheet">
        <StaffDrawing
          v-if="studies[i]?.data"
          :score="studies[i]!.data!.score"
          :size="0.72"
          close
          :verdicts="verdictsOf(studies[i]!.data)"
        />
      </div>
    </article>
  </section>
</template>

<style scoped>
.compared {
  display: grid;
  gap: 1rem;
}

.difference {
  font: 600 var(--text-xl) / 1.2 var(--font-display);
}

.sheet {
  background: var(--raised);
  border: 1px solid var(--rule);
  padding: 0.1rem 0.5rem;
  margin-top: 0.4rem;
}
</style>
