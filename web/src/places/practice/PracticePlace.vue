<script setup lang="ts">
/* Where what is known becomes what is played: calls, the changes over the band, and the takes that were kept. */
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import { useAddress } from '../../shell/useAddress'
import CallsPlace from './CallsPlace.vue'
import ChangesPlace from './ChangesPlace.vue'
import TakesPlace from './TakesPlace.vue'

const what = useAddress().oneOf('do', ['calls', 'changes', 'takes'])
const rooms = [
  { id: 'calls', name: 'Calls' },
  { id: 'changes', name: 'Over the changes' },
  { id: 'takes', name: 'Takes' },
]
</script>

<template>
  <div class="practice-room">
    <nav class="rooms" aria-label="ways to practise">
      <SegmentedChoice v-model="what" :options="rooms" label="ways to practise" />
    </nav>
    <CallsPlace v-if="what === 'calls'" />
    <ChangesPlace v-else-if="what === 'changes'" />
    <TakesPlace v-else />
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
