<script setup lang="ts">
/* The note in hand: what it is, how sure the ear is, and what its player says to it. */
import { computed } from 'vue'
import Button from 'primevue/button'
import type { HeardStretch, NoteByEar } from '../../api/client'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { useCommand } from '../../shell/useCommands'

const props = defineProps<{ note: NoteByEar; heard?: HeardStretch }>()
const emit = defineEmits<{ beside: []; step: [by: number]; bend: [by: number]; shift: [beats: number] }>()
const told = computed(() => props.heard?.told.find((t) => t.id === props.note.id))
const settle = useCommand('settle')
const up = useCommand('noteUp')
const down = useCommand('noteDown')
const none = useCommand('noNote')
const alone = useCommand('alone')
</script>

<template>
  <section class="card" aria-label="the note in hand">
    <p class="says">
      <MarkBadge v-if="told?.degree" :degree="told.degree" :size="30" :hollow="!note.settled" />
      <template v-if="told">
        <b><MusicText :said="told.where" /></b> <MusicText :said="told.does" />
      </template>
      <span v-else>It is not written down: the neck in hand does not hold it.</span>
    </p>
    <p v-if="told" class="why"><MusicText :said="told.why" /></p>
    <div class="does">
      <Button size="small" v-bind="settle" label="Right" :variant="note.settled ? 'outlined' : undefined" />
      <Button size="small" v-bind="down" label="Half step lower" variant="outlined" />
      <Button size="small" v-bind="up" label="Half step higher" variant="outlined" />
      <Button size="small" label="An octave lower" variant="outlined" @click="emit('step', -12)" />
      <Button size="small" label="An octave higher" variant="outlined" @click="emit('step', 12)" />
      <Button v-if="note.bend" size="small" label="Not bent" variant="outlined" @click="emit('bend', 0)" />
      <template v-else>
        <Button size="small" label="Bent a half step" variant="outlined" @click="emit('bend', 1)" />
        <Button size="small" label="Bent a whole step" variant="outlined" @click="emit('bend', 2)" />
      </template>
      <Button
        size="small"
        label="Earlier"
        title="a quarter of a beat"
        variant="outlined"
        @click="emit('shift', -0.25)"
      />
      <Button size="small" label="Later" title="a quarter of a beat" variant="outlined" @click="emit('shift', 0.25)" />
      <Button size="small" v-bind="none" label="No note here" variant="outlined" />
      <Button size="small" v-bind="alone" label="Hear it alone" variant="outlined" />
      <Button size="small" label="Beside the record" variant="outlined" @click="emit('beside')" />
    </div>
  </section>
</template>

<style scoped>
.card {
  min-width: 0;
}

.says {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.6rem;
  font-size: var(--text-l);
}

.why {
  color: var(--soft);
  margin: 0.35rem 0 0.7rem;
}

.does {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
