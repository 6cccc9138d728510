<script setup lang="ts">
/* What was guessed or left out of a file: what has a place leads there. */
import type { Brought } from '../api/client'
import MusicText from '../music/MusicText.vue'
import PressButton from '../shell/PressButton.vue'

type Where = Brought['where'][number]
defineProps<{ brought: Brought; /** it is a text, whose lines can be shown */ text: boolean; shown?: Where }>()
defineEmits<{ show: [where: Where] }>()
</script>

<template>
  <ul v-if="brought.said.length" class="said" aria-label="what was guessed or left out">
    <li v-for="(s, i) in brought.said" :key="s">
      <PressButton
        v-if="brought.where[i]?.bar || (text && brought.where[i]?.line)"
        :title="brought.where[i]!.bar ? `show bar ${brought.where[i]!.bar}` : `show line ${brought.where[i]!.line}`"
        :aria-pressed="!!shown && shown === brought.where[i]"
        @click="$emit('show', brought.where[i]!)"
        ><MusicText :said="s"
      /></PressButton>
      <MusicText v-else :said="s" />
    </li>
  </ul>
</template>

<style scoped>
.said {
  color: var(--soft);
  max-height: 8rem;
  overflow-y: auto;
  margin: 0;
  padding-left: 1.1rem;
}

button {
  border: 0;
  padding: 0.15rem 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  text-decoration: underline dotted;
  text-underline-offset: 0.2em;
  cursor: pointer;
}

button[aria-pressed='true'] {
  background: var(--lit);
  color: var(--ink);
}
</style>
