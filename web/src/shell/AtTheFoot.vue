<script setup lang="ts">
/* What is heard of pedals, what is said of rests, and that the screen stays on: nothing of it is needed for the first drawing. */
import { useBand } from '../band/useBand'
import RestNote from './RestNote.vue'
import TheAnnouncer from './TheAnnouncer.vue'
import { useChosenInSight } from './useChosenInSight'
import { useFocusOnPlace } from './useFocusOnPlace'
import { usePedalPresses } from './usePedalPresses'
import { useScreenAwake } from './useScreenAwake'
import { useSwipes } from './useSwipes'

const band = useBand()
usePedalPresses()
useFocusOnPlace()
useSwipes()
useChosenInSight()
useScreenAwake(() => band.playing)
</script>

<template>
  <RestNote />
  <TheAnnouncer />
</template>
