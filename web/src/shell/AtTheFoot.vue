<script setup lang="ts">
/* What is heard of pedals, what is said of rests, and that the screen stays on: nothing of it is needed for the first drawing. */
import { useBand } from '../band/useBand'
import RestNote from './RestNote.vue'
import { useFocusOnPlace } from './useFocusOnPlace'
import { usePedalPresses } from './usePedalPresses'
import { useScreenAwake } from './useScreenAwake'

const band = useBand()
usePedalPresses()
useFocusOnPlace()
useScreenAwake(() => band.playing)
</script>

<template>
  <RestNote />
</template>
