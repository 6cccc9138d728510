<script setup lang="ts">
/* What is taken for what in calls, the most often first. */
import type { LogMaps } from '../../../api/client'
import MarkBadge from '../../../music/MarkBadge.vue'

defineProps<{ taken: LogMaps['taken'] }>()
const ways: Record<string, string> = { name: 'by name', neck: 'on the neck', play: 'by playing' }
</script>

<template>
  <ol class="taken">
    <li v-for="t in taken.slice(0, 8)" :key="`${t.wanted} ${t.said}`">
      <MarkBadge :degree="t.said" :size="30" /> for <MarkBadge :degree="t.wanted" :size="30" />
      <b>{{ t.times === 1 ? 'once' : `${t.times} times` }}</b>
      <small v-if="ways[t.by]">{{ t.times > 1 ? 'mostly ' : '' }}{{ ways[t.by] }}</small>
    </li>
  </ol>
  <p v-if="!taken.length" class="soft">
    Nothing was taken for another yet; calls that go wrong at first are told here.
  </p>
</template>

<style scoped>
.taken {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(14rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}

small,
.soft {
  color: var(--soft);
}
</style>
