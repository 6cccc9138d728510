<script setup lang="ts">
/* What cannot be seen is told once: the bar and the landing to come while the band plays, where a pedal led, and what is in view
   when it is asked for. */
import { ref, watch } from 'vue'
import { useBand } from '../band/useBand'
import { aloud } from '../music/text'
import { outline } from './outline'
import { summary } from './summary'
import { told } from './told'
import { useCommands } from './useCommands'

const band = useBand()
const quiet = ref('')
watch(
  () => (band.playing ? summary()?.now?.() : undefined),
  (text) => (quiet.value = text ?? ''),
)
const seen = ref('')
let gone: ReturnType<typeof setTimeout>
watch(told, ({ text }) => {
  seen.value = text
  clearTimeout(gone)
  gone = setTimeout(() => (seen.value = ''), Math.max(4000, text.length * 70))
})
useCommands({
  tell: async () =>
    (told.value = { text: (await summary()?.whole()) || aloud(outline(document.querySelector('main')!)) }),
})
</script>

<template>
  <p class="hidden-text" role="status" aria-live="polite">{{ quiet }}</p>
  <p class="told" :class="{ seen }" role="status" aria-live="polite">{{ seen }}</p>
</template>

<style scoped>
.told {
  position: fixed;
  z-index: 6;
  right: 1.25rem;
  bottom: 4.5rem;
  max-width: min(34rem, calc(100vw - 2.5rem));
}

.seen {
  padding: 0.6rem 0.9rem;
  background: var(--ink);
  color: var(--paper);
  border-radius: var(--round);
}

@media print {
  .told {
    display: none;
  }
}
</style>
