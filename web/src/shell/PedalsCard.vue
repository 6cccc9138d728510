<script setup lang="ts">
/* What a foot does: each deed learns any key of a page-turner or any MIDI switch. */
import { onScopeDispose } from 'vue'
import Button from 'primevue/button'
import { pedalDeeds, signalName } from './pedals'
import { usePedals } from './usePedals'

const pedals = usePedals()
onScopeDispose(() => pedals.learn(undefined))
</script>

<template>
  <div class="pedals">
    <p>
      A page-turner or a MIDI switch can do these, so that both hands stay on the guitar. Press <i>Learn</i>, then the
      pedal.
    </p>
    <ul>
      <li v-for="d in pedalDeeds" :key="d.id">
        <span class="name">{{ d.name }}</span>
        <span class="signals">
          <Button
            v-for="s in pedals.pedals[d.id]"
            :key="s"
            size="small"
            variant="outlined"
            icon="pi pi-times"
            icon-pos="right"
            :label="signalName(s)"
            :aria-label="`${signalName(s)} no longer does this`"
            @click="pedals.forget(d.id, s)"
          />
          <Button
            size="small"
            :variant="pedals.learning === d.id ? undefined : 'text'"
            :label="pedals.learning === d.id ? 'Press the pedal …' : 'Learn'"
            :aria-label="`learn a pedal for ${d.name}`"
            @click="pedals.learn(pedals.learning === d.id ? undefined : d.id)"
          />
        </span>
      </li>
    </ul>
    <p v-if="pedals.trouble" class="trouble" role="alert">{{ pedals.trouble }}</p>
  </div>
</template>

<style scoped>
.pedals {
  display: grid;
  gap: 0.4rem;
}

ul {
  display: grid;
  gap: 0.2rem;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0.2rem 1rem;
}

.signals {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.trouble {
  color: var(--danger);
}
</style>
