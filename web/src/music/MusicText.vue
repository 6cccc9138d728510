<script setup lang="ts">
/* Music among words: a symbol in plain letters, or what somebody said, with its music printed. */
import { computed } from 'vue'
import { aloud, engrave, pieces, spoken } from './text'

const props = defineProps<{ symbol?: string; said?: string }>()
const printed = computed(() => props.said ?? engrave(props.symbol ?? ''))
const parts = computed(() => pieces(printed.value))
const sounds = computed(() => {
  if (!/[♭♯°]/.test(printed.value)) return undefined
  return props.said === undefined ? spoken(props.symbol!) : aloud(props.said)
})
</script>

<template>
  <span class="music" :class="{ whole: !printed.includes(' ') }"
    ><span :aria-hidden="sounds ? true : undefined"
      ><span v-for="(p, i) in parts" :key="i" :class="{ acc: p.accidental }">{{ p.text }}</span></span
    ><span v-if="sounds" class="hidden-text">{{ sounds }}</span></span
  >
</template>

<style scoped>
.music {
  position: relative;
}

/* A symbol stays in one piece; a sentence does not. */
.whole {
  white-space: nowrap;
}
</style>
