<script setup lang="ts">
/* Where what is known becomes what is played: calls, the changes over the band, the takes that were kept, the log of it all and what to do today. */
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import { useAddress } from '../../shell/useAddress'
import CallsPlace from './CallsPlace.vue'
import ChangesPlace from './ChangesPlace.vue'
import LogPlace from './log/LogPlace.vue'
import TakesPlace from './TakesPlace.vue'
import PlanStrip from './today/PlanStrip.vue'
import TodayPlace from './today/TodayPlace.vue'

const what = useAddress().oneOf('do', ['calls', 'changes', 'takes', 'log', 'today'])
const rooms = [
  { id: 'today', name: 'Today' },
  { id: 'calls', name: 'Calls' },
  { id: 'changes', name: 'Over the changes' },
  { id: 'takes', name: 'Takes' },
  { id: 'log', name: 'Log' },
]
</script>

<template>
  <div class="practice-room">
    <nav class="rooms" aria-label="ways to practise">
      <SegmentedChoice v-model="what" :options="rooms" label="ways to practise" />
    </nav>
    <PlanStrip />
    <CallsPlace v-if="what === 'calls'" />
    <ChangesPlace v-else-if="what === 'changes'" />
    <TakesPlace v-else-if="what === 'takes'" />
    <LogPlace v-else-if="what === 'log'" />
    <TodayPlace v-else />
  </div>
</template>

<style scoped>
.practice-room {
  min-width: 0;
}

.rooms {
  padding: 0.75rem 1.25rem 0;
  display: flex;
  overflow-x: auto;
}
</style>
