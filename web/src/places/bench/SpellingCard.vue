<script setup lang="ts">
import type { Chord } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'

defineProps<{ chord: Chord }>()
const steps = (n: number) => (n === 0 ? 'at the root' : n === 1 ? 'half step up' : `${n} half steps up`)
</script>

<template>
  <section aria-labelledby="spelling-title">
    <h2 id="spelling-title">
      Spelling <small>the tones of <MusicText :text="chord.symbol" /></small>
    </h2>
    <ul>
      <li v-for="(t, i) in chord.tones" :key="i">
        <MarkBadge :degree="t.degree" :size="30" />
        <b><MusicText :text="t.note" /></b>
        <span
          >{{ steps(t.halfSteps) }}<template v-if="t.simpler">, sounds as <MusicText :text="t.simpler" /></template
        ></span>
      </li>
    </ul>
    <p v-if="chord.bass" class="bass">The bass plays <MusicText :text="chord.bass" />.</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--text-l);
}

small {
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
  margin-left: 0.35rem;
}

ul {
  display: grid;
  gap: 0.2rem;
  margin-top: 0.35rem;
}

li {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}

b {
  min-width: 2rem;
  font-size: var(--text-m);
}

li span:last-child,
.bass {
  color: var(--soft);
  font-size: var(--text-s);
}
</style>
