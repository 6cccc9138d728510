<script setup lang="ts">
/* What may be answered, each with its key. */
import type { Call } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import { spoken } from '../../music/text'
import PressButton from '../../shell/PressButton.vue'

defineProps<{ call: Call; slip?: string; over: boolean }>()
const emit = defineEmits<{ name: [option: string] }>()
</script>

<template>
  <div class="keys" role="group" aria-label="answers">
    <PressButton
      v-for="a in call.answers"
      :key="a.is"
      :class="{ slip: slip === a.is, is: over && call.answer === a.is }"
      :data-answer="a.is"
      @click="emit('name', a.is)"
    >
      <template v-if="a.name">{{ a.name }}</template>
      <template v-else
        ><span class="hidden-text">{{ spoken(a.is) }}, </span><MarkBadge :degree="a.is" :size="38"
      /></template>
      <kbd>{{ a.key }}</kbd>
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
