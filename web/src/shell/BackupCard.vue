<script setup lang="ts">
/* Everything that was made, as a file; and back from one. What is there is put aside before. */
import { ref, shallowRef, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import TickBox from './TickBox.vue'
import { answer, fetchOf, Refused } from '../api/client'

const emit = defineEmits<{ restored: [] }>()
const router = useRouter()
const field = useTemplateRef('field')
/** The files of recordings are large; without them what was found in a recording goes along all the same. */
const recordings = ref(false)
const chosen = shallowRef<File>()
const busy = ref(false)
const trouble = ref('')
/** What was left out of it, since it cannot be used; `lost` counts also what is not told. */
const left = ref<string[]>([])
const lost = ref(0)
/** It has nothing in it: the player is asked once more. */
const empties = ref(false)
function choose(e: Event) {
  chosen.value = (e.target as HTMLInputElement).files?.[0]
  empties.value = false
  trouble.value = ''
  lost.value = 0
}
function done() {
  emit('restored')
  void router.push({ name: 'charts' })
}
async function restore() {
  if (!chosen.value) return
  busy.value = true
  trouble.value = ''
  try {
    const response = await fetchOf(`/api/restore${empties.value ? '?empty=yes' : ''}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: chosen.value,
    })
    type Brought = { left: string[]; lost: number }
    const body: unknown = await response.json()
    const brought = await answer<Brought>(
      Promise.resolve(response.ok ? { data: body as Brought, response } : { error: body, response }),
    )
    // Its answer has said that another database is open, so every tab turns; what was not saved is offered there.
    chosen.value = undefined
    empties.value = false
    left.value = brought.left
    lost.value = brought.lost
    if (lost.value === 0) done()
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
    empties.value = e instanceof Refused && e.status === 409 && /empty/.test(e.message)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="backup">
    <p>
      A backup is one file with everything you made: charts, licks, lines, takes and how they sounded, what was
      practised, lessons and players.
    </p>
    <TickBox v-model="recordings">with the files of recordings, which are large</TickBox>
    <p class="do">
      <Button
        as="a"
        :href="`/api/backup${recordings ? '?recordings=yes' : ''}`"
        download
        label="Download a backup"
        size="small"
        variant="outlined"
      />
      <Button label="Restore one …" size="small" variant="outlined" @click="field?.click()" />
      <input
        ref="field"
        type="file"
        accept=".tar,.json,application/x-tar,application/json"
        class="hidden-text"
        tabindex="-1"
        aria-label="a backup to restore"
        @change="choose"
      />
    </p>
    <div v-if="chosen" class="ask" role="group" aria-label="restore">
      <p>
        Put <b>{{ chosen.name }}</b> in place of everything that is here? A copy of what is here stays beside the
        database.
      </p>
      <Button
        :label="busy ? 'Restoring' : empties ? 'Restore it all the same' : 'Restore it'"
        size="small"
        :disabled="busy"
        @click="restore"
      />
      <Button label="Not now" size="small" variant="text" @click="chosen = undefined" />
    </div>
    <div v-if="lost > 0" class="ask" role="status">
      <p>
        It was restored. {{ lost === 1 ? 'One thing of it' : `${lost} things of it` }} cannot be used here and
        {{ lost === 1 ? 'was' : 'were' }} left out:
      </p>
      <ul>
        <li v-for="what in left" :key="what">{{ what }}</li>
        <li v-if="lost > left.length">and {{ lost - left.length }} more</li>
      </ul>
      <Button label="Go to the charts" size="small" @click="done" />
    </div>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.backup {
  display: grid;
  gap: 0.5rem;
}

.do,
.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
}

.ask {
  padding: 0.6rem 0.8rem;
  background: var(--lit);
  border-radius: var(--round);
}

.ask p {
  flex: 1 1 18rem;
}

.ask ul {
  flex: 1 1 100%;
  margin: 0;
  padding-left: 1.2rem;
  overflow-wrap: anywhere;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}
</style>
