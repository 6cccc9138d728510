<script setup lang="ts">
/* One press from wherever one is to the count-in of what was practised last. */
import { useRoute, useRouter } from 'vue-router'
import PressButton from './PressButton.vue'
import { onward, useGoOn } from './useGoOn'

const { kept } = useGoOn()
const route = useRoute()
const router = useRouter()
const there = (path: string) => route.path === path.split('?')[0]
</script>

<template>
  <PressButton
    v-if="kept.last && !there(kept.last.path)"
    class="on"
    :title="`go on with ${kept.last.title}, at ${kept.last.tempo}: the band counts in`"
    @click="router.push(onward(kept.last))"
  >
    Go on: {{ kept.last.title }}
  </PressButton>
</template>

<style scoped>
.on {
  min-width: 0;
  overflow: hidden;
  border: 0;
  background: none;
  color: var(--soft);
  font: inherit;
  text-decoration: underline;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
</style>
