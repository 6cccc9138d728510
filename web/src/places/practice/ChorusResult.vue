<script setup lang="ts">
/* What was good in a chorus, what to try next, and what becomes of it. */
import { computed } from 'vue'
import Button from 'primevue/button'
import type { FreeTake } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import { aloud } from '../../music/text'
import { useSummary } from '../../shell/summary'
import { useCommand } from '../../shell/useCommands'
import { apart as said } from './chorus'

const props = defineProps<{
  chorus: FreeTake
  /** which one of those that a way to practise asks for, where it asks for several */
  number: number
  /** how many can be kept, and how many are */
  held: number
  kept: number
  /** a simulated player played it, while a plan is gone through */
  simulated: boolean
  planned: boolean
}>()
defineEmits<{ write: [] }>()
const keep = useCommand('keep')
useSummary({ whole: () => aloud(`${props.chorus.good}. Try: ${props.chorus.try}.`) })
const apart = computed(() => said({ simulated: props.simulated, free: props.chorus }, props.planned))
/* Of what was held to the sum, and what was held to least. */
const broken = computed(() => {
  const all = props.chorus.held ?? []
  const sum = (of: (h: (typeof all)[number]) => number) => all.reduce((n, h) => n + of(h), 0)
  const least = all.filter((h) => h.kept < h.of).toSorted((a, b) => a.kept / a.of - b.kept / b.of)
  return { kept: sum((h) => h.kept), of: sum((h) => h.of), least: least.slice(0, 2) }
})
</script>

<template>
  <section class="result" role="status">
    <p>
      <small v-if="number">Chorus {{ number }}: {{ chorus.asked }}</small>
      <b><MusicText :said="`${chorus.good}.`" /></b> Try: <MusicText :said="chorus.try" />.
      <small v-if="broken.of">
        Held to: {{ broken.kept }} of {{ broken.of
        }}<template v-for="h in broken.least" :key="`${h.from} ${h.says}`"
          >; <MusicText :said="h.says" /> {{ h.kept }} of {{ h.of }}</template
        >.
      </small>
      <small v-if="apart">{{ apart }}</small>
      <small v-for="s in chorus.said" :key="s">{{ s }}.</small>
    </p>
    <Button
      :label="kept ? `Kept ${kept}` : held > 1 ? 'Keep the last two' : 'Keep it'"
      icon="pi pi-bookmark"
      v-bind="keep"
    />
    <Button label="Make a line of it" variant="outlined" @click="$emit('write')" />
  </section>
</template>

<style scoped>
.result {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

p {
  flex: 1 1 20rem;
  font-size: var(--text-l);
}

small {
  display: block;
  color: var(--soft);
}
</style>
