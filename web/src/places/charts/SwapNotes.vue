<script setup lang="ts">
/* What another form or turnaround would change, bar by bar, before it is put in. */
import { computed } from 'vue'
import Button from 'primevue/button'
import type { Reading } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import { differences } from './tiles'

const props = defineProps<{ name: string; was: Reading['written']; now: Reading['written'] }>()
const emit = defineEmits<{ put: []; leave: [] }>()
const all = computed(() => differences(props.was, props.now))
const says = computed(() => {
  const of = Math.max(props.was.length, props.now.length)
  if (!all.value.length) return `all ${of} bars are as they stand`
  return all.value.length === 1 ? `1 of ${of} bars is another` : `${all.value.length} of ${of} bars are others`
})
</script>

<template>
  <section class="swap" role="status" :aria-label="`${name} instead`">
    <p>
      <b><MusicText :said="name" /></b>: {{ says }}.
    </p>
    <ol v-if="all.length">
      <li v-for="d in all" :key="d.bar">
        <small>{{ d.bar || 'pickup' }}</small>
        <s v-if="d.was"><MusicText :symbol="d.was" /></s>
        <b><MusicText :symbol="d.now ?? 'gone'" /></b>
      </li>
    </ol>
    <div class="deeds">
      <Button label="Put it in" size="small" :disabled="!all.length" @click="emit('put')" />
      <Button label="Leave it" size="small" variant="outlined" @click="emit('leave')" />
    </div>
  </section>
</template>

<style scoped>
.swap {
  display: grid;
  gap: 0.6rem;
  padding: 0.7rem 0.9rem;
  border: 2px solid var(--lit-rule);
  background: var(--raised);
}

ol {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.3rem 1rem;
  margin: 0;
  padding: 0;
  list-style: none;
  max-height: 14rem;
  overflow-y: auto;
}

li {
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
}

small {
  min-width: 1.4em;
  color: var(--soft);
  text-align: right;
}

s {
  color: var(--soft);
}

li b {
  font-family: var(--font-display);
}

.deeds {
  display: flex;
  gap: 0.5rem;
}
</style>
