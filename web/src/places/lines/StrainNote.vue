<script setup lang="ts">
/* After how often a drill of bends or trills ends by itself, and what is easier. */
import Button from 'primevue/button'
import type { LineNote } from '../../api/client'
import type { Level } from '../../document/level'

const { most, drill, notes } = defineProps<{
  /** passes; undefined where nothing strains as it is played */
  most: number | undefined
  /** a drill of bends or trills */
  drill: boolean
  notes: LineNote[]
}>()
const level = defineModel<Level>({ required: true })
const bends = () => notes.some((n) => n.bend)
</script>

<template>
  <p v-if="most" class="strain">
    After {{ most === 1 ? 'one time' : `${most} times` }} the band ends: enough for a hand.
    <Button
      variant="text"
      :label="bends() ? 'Easier: without bends' : 'Easier: without trills'"
      @click="level = bends() ? 'unbent' : 'plain'"
    />
  </p>
  <p v-else-if="drill && level === 'unbent'" class="strain">
    Each bend's goal is fretted.
    <Button variant="text" label="With bends again" @click="level = 'ornamented'" />
  </p>
</template>

<style scoped>
.strain {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0 0.5rem;
  grid-column: 1 / -1;
  color: var(--soft);
}
</style>
