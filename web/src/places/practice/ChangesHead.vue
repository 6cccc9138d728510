<script setup lang="ts">
/* What is practised, where, and on what it is played. */
import { positionName, spanOf } from '../../neck/region'
import Button from 'primevue/button'
import Select from 'primevue/select'
import MusicText from '../../music/MusicText.vue'
import type { Chosen } from './useChosen'
import { useLanded } from './useLanded'

const props = defineProps<{ chosen: Chosen }>()
const { tune, chart, over, asked, modes, position, positions, frets, mode, made, chosen: picked, seed } = props.chosen
const landed = useLanded(props.chosen)
</script>

<template>
  <header>
    <h1>{{ tune ?? chart!.title }}</h1>
    <p class="of"><MusicText :symbol="over?.key ?? chart!.key" /></p>
    <Button
      v-if="landed.bars.value"
      :label="landed.bars.value"
      icon="pi pi-times"
      icon-pos="right"
      variant="outlined"
      :title="`${landed.bars.value} go round; press for the whole form`"
      @click="landed.whole()"
    />
    <span class="space" />
    <Select v-model="asked" :options="modes" option-label="name" option-value="id" aria-label="what is practised" />
    <Select
      :model-value="position && spanOf(position)"
      :options="positions.map((p) => ({ id: spanOf(p), name: positionName(p) }))"
      option-label="name"
      option-value="id"
      aria-label="the position"
      @update:model-value="frets = $event"
    />
    <Select
      v-if="mode!.with"
      v-model="picked"
      :options="made.map((l) => ({ id: `${l.id}`, name: l.title }))"
      option-label="name"
      option-value="id"
      :placeholder="`which ${mode!.with}`"
      :aria-label="`the ${mode!.with}`"
    />
    <Button v-else-if="mode!.writes" label="Something else" variant="outlined" @click="seed++" />
    <slot />
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

h1 {
  font-size: var(--text-xl);
}

.of {
  color: var(--soft);
}

.space {
  flex: 1;
}
</style>
