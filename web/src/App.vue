<script setup lang="ts">
import { ref } from 'vue'
import { here } from './memory/here'
import MemoryNotes from './shell/MemoryNotes.vue'
import TheRail from './shell/TheRail.vue'
import { later } from './shell/later'
import './shell/toastsKept'
import BandStrip from './band/BandStrip.vue'
import { useCommands } from './shell/useCommands'
import { useWholeClicks } from './shell/useWholeClicks'
import { useTheme } from './theme/useTheme'
import { following } from './together/following'

const HelpDialog = later(() => import('./shell/HelpDialog.vue'))
const InstrumentDialog = later(() => import('./shell/InstrumentDialog.vue'))
const ConflictDialog = later(() => import('./shell/ConflictDialog.vue'))
const BringAnywhere = later(() => import('./making/BringAnywhere.vue'))
const PlanStrip = later(() => import('./places/practice/today/PlanStrip.vue'))
const AtTheFoot = later(() => import('./shell/AtTheFoot.vue'))
const WayBar = later(() => import('./ways/WayBar.vue'))
const WhoPlays = later(() => import('./recording/WhoPlays.vue'))
const TheToasts = later(() => import('./shell/TheToasts.vue'))

const { theme, turn } = useTheme()
useWholeClicks()
const help = ref(false)
const instrument = ref(false)
const skip = () => document.getElementById('place')?.focus()
useCommands({ help: () => (help.value = true), theme: () => turn() })
</script>

<template>
  <div class="house" :class="{ alone: $route.meta.alone }">
    <a class="skip" href="#place" @click.prevent="skip">Skip to what is shown</a>
    <TheRail
      v-if="!$route.meta.alone"
      :theme="theme"
      @theme="turn"
      @help="help = true"
      @instrument="instrument = true"
    />
    <div class="room">
      <div v-if="!$route.meta.alone"><PlanStrip /><WayBar /></div>
      <div v-else />
      <div><MemoryNotes /><AtTheFoot /></div>
      <!-- A place that is of one thing begins anew with another. -->
      <main id="place" tabindex="-1">
        <RouterView :key="`${here.turned} ${$route.meta.each ? $route.path : ''}`" />
      </main>
      <!-- A recording has a strip of its own: the band is silent there. -->
      <BandStrip v-show="!$route.meta.own && !following"><WhoPlays /></BandStrip>
    </div>
    <HelpDialog v-model="help" />
    <InstrumentDialog v-model="instrument" />
    <ConflictDialog />
    <BringAnywhere />
    <TheToasts />
  </div>
</template>

<style scoped>
.house {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr);
  min-height: 100vh;
}

.room {
  display: grid;
  grid-template: auto auto minmax(0, 1fr) auto / minmax(0, 1fr);
  min-height: 100vh;
}

main {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-width: 0;
  outline: none;
}

.skip {
  position: fixed;
  z-index: 20;
  top: 0.5rem;
  left: -100vw;
  padding: 0.6rem 1rem;
  background: var(--ink);
  color: var(--paper);
  border-radius: var(--round);
}

.skip:focus {
  left: 0.5rem;
}

/* The music stand has the whole screen. */
.alone {
  grid-template-columns: minmax(0, 1fr);
}

@media (max-width: 51.25em) {
  .house {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 1fr;
  }
}

@media print {
  .house,
  .room,
  main {
    display: block;
  }
}
</style>
