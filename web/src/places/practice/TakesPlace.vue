<script setup lang="ts">
/* What was played and kept: heard again with the band, compared change by change, made a line of. */
import { useTitle } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import { playing } from '../../api/kept'
import { readSound, readTake, useTakeChanges, useTakes, useTheTakes } from '../../api/takes'
import type { TakeRow } from '../../api/client'
import { useBand } from '../../band/useBand'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import PressButton from '../../shell/PressButton.vue'
import { useAddress } from '../../shell/useAddress'
import { metreOf } from '../../music/metre'
import TakesCompared from './TakesCompared.vue'

useTitle('Takes · Undaris')
const takes = useTakes()
const changes = useTakeChanges()
const band = useBand()
const router = useRouter()
/* One or two are looked at. Come here from the log it is the take behind it, heard from the bar that it is about. */
const address = useAddress()
const pointed = computed(() => Number(address.read('take')))
const fromBar = (id: number) => (id === pointed.value && Number(address.read('bar'))) || 1
const chosen = ref<number[]>([])
const both = useTheTakes(chosen)
function choose(id: number) {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter((c) => c !== id) : [...chosen.value, id].slice(-2)
}
watch(takes.data, (all) => {
  const first = all?.find((t) => t.id === pointed.value) ?? all?.[0]
  if (first && !chosen.value.length && !first.problem) chosen.value = [first.id]
  else chosen.value = chosen.value.filter((id) => all?.some((t) => t.id === id))
})
const sounding = ref(0)
let silence = () => {}
watch(
  () => band.playing,
  (now) => {
    if (now) return
    sounding.value = 0
    silence()
  },
)
async function hear(t: TakeRow) {
  if (sounding.value === t.id) return band.stop()
  const [{ line, bars, lengths }, wav] = await Promise.all([readTake(t.id), t.sound ? readSound(t.id) : undefined])
  // Where it is kept as it sounded, that is heard, and not what was made of it.
  const load = playing(wav ? { ...line, notes: [] } : line)
  await band.hear(
    { title: t.title, beats: line.beats, bars, lengths, tempo: t.tempo, cues: [], load },
    metreOf({ beats: line.beats, bars, lengths }).startOf(fromBar(t.id) - 1),
  )
  band.setTempo(t.tempo)
  sounding.value = t.id
  if (wav) silence = await band.beside(wav)
}
onBeforeUnmount(() => sounding.value && band.stop())
async function asLine(t: TakeRow) {
  const { line } = await readTake(t.id)
  const made = await changes.asLine(line)
  await router.push({ name: 'line', params: { id: made.id } })
}
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const days = computed(() => takes.data.value?.map((t) => ({ ...t, at: when.format(new Date(t.created)) })) ?? [])
</script>

<template>
  <EmptyPlace
    v-if="takes.data.value && !takes.data.value.length"
    title="No takes yet"
    text="Play over the changes, or along with a line; one press keeps what you played."
  >
    <Button as="router-link" :to="{ name: 'practice', query: { do: 'changes' } }" label="Over the changes" />
  </EmptyPlace>
  <div v-else-if="takes.data.value" class="takes">
    <ul aria-label="takes">
      <li v-for="t in days" :key="t.id" :class="{ chosen: chosen.includes(t.id) }">
        <PressButton class="name" :aria-pressed="chosen.includes(t.id)" @click="choose(t.id)">
          <b>{{ t.title }}</b>
          <small>{{
            t.problem ??
            `${t.at} · ${t.landed} of ${t.changes} changes · ${t.notes} notes · ${t.tempo}${t.sound ? ' · as it sounded' : ''}`
          }}</small>
        </PressButton>
        <Button
          :icon="sounding === t.id ? 'pi pi-stop' : 'pi pi-volume-up'"
          variant="text"
          :aria-label="`hear ${t.title}`"
          :title="fromBar(t.id) > 1 ? `hear it with the band from bar ${fromBar(t.id)} on` : 'hear it with the band'"
          :label="fromBar(t.id) > 1 ? `bar ${fromBar(t.id)}` : undefined"
          @click="hear(t)"
        />
        <Button
          icon="pi pi-file-edit"
          variant="text"
          :aria-label="`make a line of ${t.title}`"
          title="make a line of it"
          @click="asLine(t)"
        />
        <Button icon="pi pi-trash" variant="text" :aria-label="`delete ${t.title}`" @click="changes.remove(t)" />
      </li>
    </ul>
    <TakesCompared v-if="both.data.value?.length" :takes="both.data.value" />
    <p v-if="chosen.length === 1 && days.length > 1" class="hint">Choose another to set it beside this one.</p>
  </div>
  <EmptyPlace v-else-if="takes.error.value" title="No answer" :text="takes.error.value.message" />
</template>

<style scoped>
.takes {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
  padding: 0.75rem 1.25rem 1.5rem;
  align-content: start;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 17rem;
  overflow-y: auto;
  border: 1px solid var(--rule);
}

li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  background: var(--raised);
}

.chosen {
  background: var(--lit);
}

.name {
  flex: 1;
  min-width: 0;
  display: grid;
  text-align: left;
  padding: 0.5rem 0.9rem;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}

small,
.hint {
  color: var(--soft);
}
</style>
