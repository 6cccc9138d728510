<script setup lang="ts">
import { ref, watch } from 'vue'
import { useRoute } from 'vue-router'
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
/* A narrow screen has room for the name of the place alone; the others come down when asked. */
const route = useRoute()
const open = ref(false)
watch(
  () => route.fullPath,
  () => (open.value = false),
)
const left = (e: FocusEvent) =>
  (e.currentTarget as Element).contains(e.relatedTarget as Node | null) || (open.value = false)
</script>

<template>
  <nav class="rail" :class="{ open }" aria-label="places" @keydown.esc="open = false" @focusout="left">
    <PressButton class="menu" aria-label="places" :aria-expanded="open" @click="open = !open"
      ><i class="pi pi-bars"
    /></PressButton>
    <b class="place">{{ $route.meta.place }}</b>
    <svg class="mark" viewBox="0 0 32 32" role="img" aria-label="Undaris">
      <path d="M2 20 C8 8 12 8 16 16 S24 26 30 12" />
    </svg>
    <div class="places">
      <RouterLink v-for="p in places" :key="p.name" v-slot="{ href, navigate }" :to="p.to" custom>
        <a
          :href="href"
          :class="{ on: $route.meta.place === p.name }"
          :aria-current="$route.meta.place === p.name ? 'page' : undefined"
          @click="navigate"
          >{{ p.name }}</a
        >
      </RouterLink>
    </div>
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

.places {
  display: contents;
}

.menu,
.place {
  display: none;
}

@media (max-width: 51.25em) {
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

@media (max-width: 40em) {
  .rail {
    position: relative;
  }

  .mark {
    display: none;
  }

  .menu {
    display: grid;
  }

  .place {
    display: block;
    font: 600 var(--text-l) var(--font-display);
  }

  /* The three at the end are told by their signs. */
  button {
    min-width: 2.75rem;
    min-height: 2.75rem;
    font-size: 0;
    gap: 0;
  }

  button i {
    font-size: 1.1rem;
  }

  .places {
    position: absolute;
    z-index: 10;
    top: 100%;
    left: 0;
    display: none;
    min-width: 12rem;
    background: var(--raised);
    border: 1px solid var(--ink);
    border-width: 0 2px 2px 0;
  }

  .open .places {
    display: grid;
  }

  .places a {
    justify-items: start;
    padding-inline: 1.1rem;
    font-size: var(--text-m);
  }

  a.on {
    box-shadow: inset 4px 0 var(--third);
  }
}

@media print {
  .rail {
    display: none;
  }
}
</style>
