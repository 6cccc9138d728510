<script setup lang="ts">
/* What is heard of pedals, and what is said of rests: nothing of it is needed for the first drawing. */
import RestNote from './RestNote.vue'
import { usePedalPresses } from './usePedalPresses'

usePedalPresses()
</script>

<template>
  <RestNote />
</template>
