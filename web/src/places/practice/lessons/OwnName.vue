<script setup lang="ts">
/* Who goes by no name yet gives one: it stands on what is handed out and given back. */
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import { usePlayer } from '../../../api/queries'
import { usePlayerChanges } from '../../../api/players'

const { to } = defineProps<{ to: string }>()
const player = usePlayer()
const { rename } = usePlayerChanges()
/** As a player is called who was never asked. */
const nameless = computed(() => player.data.value?.name === 'Player')
const call = (name: string) => {
  const p = player.data.value
  if (p?.id && name.trim()) rename.mutate({ id: p.id, name: name.trim() })
}
</script>

<template>
  <label v-if="nameless" class="name">
    <span>Your name, as {{ to }} will read it</span>
    <InputText maxlength="60" aria-label="your name" @change="call(($event.target as HTMLInputElement).value)" />
  </label>
</template>

<style scoped>
.name {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.75rem;
}
</style>
