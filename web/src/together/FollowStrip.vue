<script setup lang="ts">
/* A device follows the laptop, or looks elsewhere until it is to follow again. */
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import PressButton from '../shell/PressButton.vue'
import { following } from './following'
import LedStrip from './LedStrip.vue'
import { useFollowed } from './useFollowed'

const route = useRoute()
const { lead, there, out, view, ask } = useFollowed()
/* What is read from across the room is pressed without looking: on its left half back, on its right half on. */
const halves = computed(() => following.value && /^\/(stand|call)/.test(route.path))
</script>

<template>
  <Teleport to=".room">
    <template v-if="halves">
      <button class="half back" type="button" aria-label="back" @click="ask('back')" />
      <button class="half next" type="button" aria-label="next" @click="ask('next')" />
    </template>
    <LedStrip
      v-if="following"
      v-model="view"
      :lead="lead"
      :there="there"
      :out="out"
      @ask="ask"
      @leave="following = false"
    />
    <PressButton v-else class="back-to" @click="following = true"
      ><i class="pi pi-link" />Follow the laptop{{ lead?.playing ? `: ${lead.title}` : '' }}</PressButton
    >
  </Teleport>
</template>

<style scoped>
.half {
  position: fixed;
  z-index: 4;
  top: 7rem;
  bottom: 8rem;
  width: 50%;
  border: 0;
  background: none;
  cursor: pointer;
}

.half.back {
  left: 0;
}

.half.next {
  right: 0;
}

.half:active {
  background: color-mix(in srgb, var(--lit) 40%, transparent);
}

.back-to {
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 1px solid var(--ink);
  border-radius: var(--round);
  color: inherit;
  font-weight: 600;
  cursor: pointer;
  position: fixed;
  z-index: 6;
  right: 0.75rem;
  bottom: 5.5rem;
  display: flex;
  align-items: center;
  gap: 0.5rem;
  background: var(--lit);
}
</style>
