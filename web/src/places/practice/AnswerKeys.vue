<script setup lang="ts">
/* What may be answered, each with its key. */
import { computed } from 'vue'
import type { Call } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import PressButton from '../../shell/PressButton.vue'
import { keysOf } from './keys'

const props = defineProps<{ call: Call; slip?: string; over: boolean }>()
const emit = defineEmits<{ name: [option: string] }>()
const bends: Record<string, string> = { 0: 'not at all', 1: 'a half step', 2: 'a whole step', 3: 'one and a half' }
const keys = computed(() => keysOf(props.call))
</script>

<template>
  <div class="keys" role="group" aria-label="answers">
    <PressButton
      v-for="o in call.options"
      :key="o"
      :class="{ slip: slip === o, is: over && call.answer === o }"
      :aria-label="call.kind === 'bend' ? bends[o] : o"
      :data-answer="o"
      @click="emit('name', o)"
    >
      <template v-if="call.kind === 'bend'">{{ bends[o] }}</template>
      <MarkBadge v-else :degree="o" :size="38" />
      <kbd>{{ keys[o] }}</kbd>
    </PressButton>
  </div>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

button {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 3.25rem;
  padding: 0.25rem 0.8rem;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  background: var(--raised);
  color: inherit;
  font-size: var(--text-m);
  cursor: pointer;
}

button:hover {
  background: var(--lit);
}

.slip {
  border-color: var(--danger);
  text-decoration: line-through;
}

.is {
  background: var(--lit);
  border-color: var(--lit-rule);
}

kbd {
  color: var(--soft);
  font: 600 var(--text-s) var(--font-text);
}
</style>
