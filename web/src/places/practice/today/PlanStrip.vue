<script setup lang="ts">
/* While a plan is gone through: what is played now, why, and how long; at its end the next one comes by itself. */
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import { useBand } from '../../../band/useBand'
import MusicText from '../../../music/MusicText.vue'
import { placeOf, usePlan } from './usePlan'

const plan = usePlan()
const band = useBand()
const router = useRouter()
const left = computed(() => {
  const s = Math.max(0, plan.kept.left)
  return `${Math.floor(s / 60)}:${`${s % 60}`.padStart(2, '0')}`
})
watch(
  () => plan.kept.running && plan.item?.id,
  (id, before) => {
    if (!id || id === before) return
    if (before) band.stop()
    void router.push(placeOf(plan.item!, band.chart?.id ?? 0))
  },
)
</script>

<template>
  <section v-if="plan.item && plan.kept.running" class="plan-strip" aria-label="the plan">
    <span class="left" role="timer">{{ left }}</span>
    <p>
      <b><MusicText :said="plan.item.title" /></b>
      <small><MusicText :said="`${plan.item.why}. Done: ${plan.item.done}.`" /></small>
    </p>
    <span class="at">{{ plan.kept.at + 1 }} of {{ plan.kept.items.length }}</span>
    <Button label="Next" @click="plan.next" />
    <Button label="Pause" variant="outlined" @click="plan.pause" />
  </section>
</template>

<style scoped>
.plan-strip {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  margin: 0.75rem 1.25rem 0;
  padding: 0.5rem 0.9rem;
  background: var(--lit);
  border-radius: var(--round);
}

.left {
  font: 600 1.8rem / 1 var(--font-display);
  font-variant-numeric: tabular-nums;
}

p {
  flex: 1 1 18rem;
  min-width: 0;
}

small {
  display: block;
}

.at {
  color: var(--soft);
}
</style>
