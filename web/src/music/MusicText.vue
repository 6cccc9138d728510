<script setup lang="ts">
import { computed } from 'vue'
import { pieces, spoken } from './text'

const props = defineProps<{ text: string }>()
const parts = computed(() => pieces(props.text))
const sounds = computed(() => (/[b#]|dim/.test(props.text) ? spoken(props.text) : undefined))
</script>

<template>
  <span class="music" :class="{ whole: !text.includes(' ') }"
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
