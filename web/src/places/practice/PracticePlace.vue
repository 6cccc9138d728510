<script setup lang="ts">
/* Where what is known becomes what is played: calls, the changes over the band, the takes that were kept, the log of it all, what to do today, and what a teacher asks for. */
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import { useAddress } from '../../shell/useAddress'
import CallsPlace from './CallsPlace.vue'
import ChangesPlace from './ChangesPlace.vue'
import LogPlace from './log/LogPlace.vue'
import LessonsPlace from './lessons/LessonsPlace.vue'
import TakesPlace from './TakesPlace.vue'
import TodayPlace from './today/TodayPlace.vue'

const what = useAddress().oneOf('do', ['calls', 'changes', 'takes', 'log', 'lessons', 'today'], true)
const rooms = [
  { id: 'today', name: 'Today' },
  { id: 'calls', name: 'Calls' },
  { id: 'changes', name: 'Over the changes' },
  { id: 'takes', name: 'Takes' },
  { id: 'log', name: 'Log' },
  { id: 'lessons', name: 'Lessons' },
]
</script>

<template>
  <div class="practice-room">
    <nav class="rooms" aria-label="ways to practise">
      <SegmentedChoice v-model="what" :options="rooms" label="ways to practise" />
    </nav>
    <CallsPlace v-if="what === 'calls'" />
    <ChangesPlace v-else-if="what === 'changes'" />
    <TakesPlace v-else-if="what === 'takes'" />
    <LogPlace v-else-if="what === 'log'" />
    <LessonsPlace v-else-if="what === 'lessons'" />
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
