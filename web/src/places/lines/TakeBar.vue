<script setup lang="ts">
/* How the line was played: what was good first, then one thing to try; figures last. */
import { computed } from 'vue'
import type { TakeVerdicts } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import Button from 'primevue/button'

const props = defineProps<{ take: TakeVerdicts; keeps?: 'can' | 'kept' }>()
const emit = defineEmits<{ close: []; keep: [] }>()
const tendency = computed(() => {
  const { tendency: t } = props.take
  return Math.abs(t) < 10
    ? 'on the beat as a whole'
    : `${Math.abs(Math.round(t))} ms ${t > 0 ? 'behind' : 'ahead'} as a whole`
})
</script>

<template>
  <p class="take" role="status">
    <b><MusicText :said="`${take.good}.`" /></b>
    <span v-if="take.heard">Try: <MusicText :said="take.try" />.</span>
    <span v-else>{{ take.try }}.</span>
    <small v-if="take.heard">{{ tendency }}, within {{ Math.round(take.spread) }} ms</small>
    <Button
      v-if="keeps"
      :label="keeps === 'kept' ? 'Kept' : 'Keep it'"
      icon="pi pi-bookmark"
      variant="outlined"
      :disabled="keeps === 'kept'"
      title="kept among the takes, in Practice"
      @click="emit('keep')"
    />
    <Button icon="pi pi-times" variant="text" aria-label="close the take" @click="emit('close')" />
  </p>
</template>

<style scoped>
.take {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.25rem 0.75rem;
  grid-column: 1 / -1;
}

small {
  color: var(--soft);
}
</style>
