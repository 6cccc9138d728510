<script setup lang="ts">
/* Whose turn it is; another player is named here, and so is whoever is there. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Popover from '../../../shell/ThePopover.vue'
import { usePlayerChanges, usePlayers } from '../../../api/players'
import PressButton from '../../../shell/PressButton.vue'
import { useUndo } from '../../../shell/useUndo'

const emit = defineEmits<{ changed: [] }>()
const players = usePlayers()
const changes = usePlayerChanges()
const here = computed(() => players.data.value?.find((p) => p.here))
const panel = ref<InstanceType<typeof Popover>>()
const name = ref('')
const trouble = ref('')
async function say(done: Promise<unknown>, other = true) {
  trouble.value = ''
  try {
    await done
    name.value = ''
    panel.value?.hide()
    if (other) emit('changed')
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
const undo = useUndo()
async function remove() {
  const gone = here.value!
  await say(changes.remove.mutateAsync(gone.id))
  if (!trouble.value) undo(gone.name, () => say(changes.restore.mutateAsync(gone.id), false))
}
const typed = computed(() => name.value.trim())
</script>

<template>
  <Button
    variant="outlined"
    icon="pi pi-user"
    :label="here?.name ?? ''"
    aria-haspopup="dialog"
    title="who plays: each has an instrument and a log"
    @click="panel?.toggle($event)"
  />
  <Popover ref="panel" label="players" @show="trouble = ''">
    <div class="players">
      <PressButton
        v-for="p in players.data.value"
        :key="p.id"
        :aria-pressed="p.here"
        :class="{ here: p.here }"
        @click="say(changes.turn.mutateAsync(p.id))"
      >
        {{ p.name }}
      </PressButton>
      <InputText v-model="name" placeholder="a name" aria-label="a name" maxlength="60" />
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <p class="row">
        <Button label="Another player" :disabled="!typed" @click="say(changes.add.mutateAsync(typed))" />
        <Button
          v-if="here"
          :label="`Rename ${here.name}`"
          variant="text"
          :disabled="!typed"
          @click="say(changes.rename.mutateAsync({ id: here!.id, name: typed }), false)"
        />
        <Button
          v-if="here && (players.data.value?.length ?? 0) > 1"
          icon="pi pi-trash"
          variant="text"
          :aria-label="`remove ${here.name}`"
          title="remove; log and lessons are kept, and this can be taken back"
          @click="remove"
        />
      </p>
    </div>
  </Popover>
</template>

<style scoped>
.players {
  display: grid;
  gap: 0.4rem;
  min-width: 16rem;
}

.players > button {
  text-align: left;
  padding: 0.5rem 0.7rem;
  border: 1px solid transparent;
  border-radius: var(--round);
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}

.players > button:hover,
.players > button.here {
  background: var(--lit);
}

.row {
  display: flex;
  gap: 0.5rem;
}

.trouble {
  color: var(--danger);
}
</style>
