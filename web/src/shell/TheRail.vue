<script setup lang="ts">
import PressButton from './PressButton.vue'
defineProps<{ theme: 'paper' | 'stage' }>()
const emit = defineEmits<{ theme: []; help: []; instrument: [] }>()
const places = [
  { to: { name: 'charts' }, name: 'Charts' },
  { to: { name: 'bench' }, name: 'Bench' },
  { to: { name: 'licks' }, name: 'Licks' },
  { to: { name: 'lines' }, name: 'Lines' },
  { to: { name: 'recordings' }, name: 'By ear' },
  { to: { name: 'practice' }, name: 'Practice' },
]
</script>

<template>
  <nav class="rail" aria-label="places">
    <svg class="mark" viewBox="0 0 32 32" role="img" aria-label="Undaris">
      <path d="M2 20 C8 8 12 8 16 16 S24 26 30 12" />
    </svg>
    <RouterLink v-for="p in places" :key="p.name" v-slot="{ href, navigate }" :to="p.to" custom>
      <a
        :href="href"
        :class="{ on: $route.meta.place === p.name }"
        :aria-current="$route.meta.place === p.name ? 'page' : undefined"
        @click="navigate"
        >{{ p.name }}</a
      >
    </RouterLink>
    <span class="gap" />
    <PressButton title="tuning, frets, capo, hand" @click="emit('instrument')">
      <i class="pi pi-sliders-h" />Neck
    </PressButton>
    <PressButton title="S" @click="emit('theme')">
      <i class="pi" :class="theme === 'paper' ? 'pi-moon' : 'pi-sun'" />{{ theme === 'paper' ? 'Stage' : 'Paper' }}
    </PressButton>
    <PressButton title="?" @click="emit('help')"><i class="pi pi-question-circle" />Help</PressButton>
  </nav>
</template>

<style scoped>
.rail {
  position: sticky;
  top: 0;
  height: 100vh;
  display: flex;
  flex-direction: column;
  border-right: 1px solid var(--rule);
  padding-block: 0.75rem;
}

.mark {
  width: 2.6rem;
  margin: 0 auto 0.6rem;
  fill: none;
  stroke: var(--third);
  stroke-width: 3.5;
  stroke-linecap: round;
}

a,
button {
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 0.25rem;
  min-height: 3rem;
  padding: 0.25rem 0.1rem;
  border: 0;
  background: none;
  color: var(--soft);
  font-size: var(--text-s);
  text-decoration: none;
  cursor: pointer;
}

a.on {
  color: var(--ink);
  font-weight: 700;
  background: var(--raised);
  box-shadow: inset 4px 0 var(--third);
}

a:hover,
button:hover {
  color: var(--ink);
}

a:focus-visible,
button:focus-visible {
  outline-offset: -3px;
}

.gap {
  flex: 1;
}

@media (max-width: 820px) {
  .rail {
    position: static;
    height: auto;
    flex-direction: row;
    border-right: 0;
    border-bottom: 1px solid var(--rule);
    padding: 0;
    align-items: center;
  }

  .mark {
    margin: 0 0.5rem;
  }

  a,
  button {
    padding-inline: 0.7rem;
  }

  a.on {
    box-shadow: inset 0 -4px var(--third);
  }
}

@media (max-width: 520px) {
  .rail {
    overflow-x: auto;
  }

  .mark {
    display: none;
  }

  a,
  button {
    padding-inline: 0.5rem;
    flex: none;
  }

  /* Five places fit; the three at the end are told by their signs. */
  button {
    font-size: 0;
    gap: 0;
  }

  button i {
    font-size: 1.1rem;
  }
}

@media print {
  .rail {
    display: none;
  }
}
</style>
