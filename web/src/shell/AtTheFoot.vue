<script setup lang="ts">
/* What is heard of pedals, what is said of rests, and that the screen stays on: nothing of it is needed for the first drawing. */
import { useBand } from '../band/useBand'
import RestNote from './RestNote.vue'
import { defineAsyncComponent } from 'vue'
import LeadHere from '../together/LeadHere.vue'
import { isDevice } from '../together/following'
import TheAnnouncer from './TheAnnouncer.vue'
import { useChosenInSight } from './useChosenInSight'
import { useFocusOnPlace } from './useFocusOnPlace'
import { usePedalPresses } from './usePedalPresses'
import { useScreenAwake } from './useScreenAwake'
import { useSwipes } from './useSwipes'

const FollowStrip = defineAsyncComponent(() => import('../together/FollowStrip.vue'))
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
  <FollowStrip v-if="isDevice" />
  <LeadHere v-else />
</template>
