<script setup lang="ts">
/* One lick: over any chord in both ways, and through the changes. */
import { useQuery } from '@tanstack/vue-query'
import { useTitle } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { answer, api, type LineBody } from '../../api/client'
import { playing, useLick, useLickChanges } from '../../api/kept'
import { useBand } from '../../band/useBand'
import MarkBadge from '../../music/MarkBadge.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import TickBox from '../../shell/TickBox.vue'
import NewLineDialog from '../lines/NewLineDialog.vue'
import LickDialog from './LickDialog.vue'

const route = useRoute()
const router = useRouter()
const id = computed(() => Number(route.params.id))
const lick = useLick(id)
const changes = useLickChanges()
useTitle(computed(() => `${lick.data.value?.title ?? 'Lick'} · Undaris`))
const set = (query: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...query } })
const chord = computed({
  get: () => String(route.query.over ?? 'F7'),
  set: (v) => set({ over: v.trim() || undefined }),
})
const frets = computed({ get: () => String(route.query.frets ?? '7-11'), set: (v) => set({ frets: v }) })
const windows = ['0-4', '2-6', '4-8', '5-9', '7-11', '9-13', '12-16', '14-18'].map((value) => ({
  value,
  name: value.replace('-', ' to '),
}))
const follow = computed({ get: () => route.query.follow === 'yes', set: (v) => set({ follow: v ? 'yes' : undefined }) })
const asked = computed(() => {
  const [low, high] = frets.value.split('-').map(Number)
  return { chord: chord.value, low: low!, high: high!, follow: follow.value }
})
const ways = useQuery({
  queryKey: ['ways', id, asked],
  queryFn: () => answer(api.GET('/api/licks/{id}/ways', { params: { path: { id: id.value }, query: asked.value } })),
  placeholderData: (before) => before,
})
const band = useBand()
const clock = () => (band.audition?.title === lick.data.value?.title ? band.ticks : undefined)
const heard = (title: string) => band.audition?.title === title && band.playing
function hear(title: string, line: LineBody) {
  if (heard(title)) return band.stop()
  void band.hear({ title, beats: line.beats, cues: [], load: playing(line) })
}
const editing = ref(false)
const sending = ref(false)
async function remove() {
  if (!lick.data.value) return
  await changes.remove(lick.data.value)
  void router.push({ name: 'licks' })
}
</script>

<template>
  <main v-if="lick.data.value" class="lick">
    <header>
      <h1>{{ lick.data.value.title }}</h1>
      <p class="meta">
        {{ lick.data.value.tags.join(' · ') }}<template v-if="lick.data.value.tags.length"> · </template>lands on
        <MarkBadge :degree="lick.data.value.landsOn" :size="26" />
      </p>
      <span class="space" />
      <Button
        v-if="lick.data.value.line"
        :icon="heard(lick.data.value.title) ? 'pi pi-stop' : 'pi pi-volume-up'"
        label="Hear"
        variant="outlined"
        @click="hear(lick.data.value.title, lick.data.value.line)"
      />
      <Button icon="pi pi-pencil" label="Change" variant="outlined" @click="editing = true" />
      <Button icon="pi pi-trash" variant="text" aria-label="delete this lick" @click="remove" />
      <Button icon="pi pi-send" label="Through the changes" @click="sending = true" />
    </header>
    <section class="sheet">
      <StaffDrawing v-if="lick.data.value.score" :score="lick.data.value.score" fingers :clock="clock" />
      <p v-else class="trouble">{{ lick.data.value.problem }}</p>
    </section>
    <div class="choice">
      <h2>Over another chord</h2>
      <InputText
        :model-value="chord"
        class="chord"
        maxlength="16"
        aria-label="chord"
        @change="chord = ($event.target as HTMLInputElement).value"
      />
      <Select v-model="frets" :options="windows" option-label="name" option-value="value" aria-label="frets" />
      <TickBox v-model="follow">degrees follow the chord (3 becomes ♭3)</TickBox>
    </div>
    <p v-if="ways.error.value" class="trouble" role="alert">{{ ways.error.value.message }}</p>
    <div v-else class="ways">
      <section v-for="w in ways.data.value ?? []" :key="w.name" class="sheet">
        <h3>
          {{ w.name }}
          <small v-if="w.line">the hand travels {{ Math.round(w.travel) }} mm</small>
          <Button
            v-if="w.line"
            :icon="heard(`${w.name}: ${chord}`) ? 'pi pi-stop' : 'pi pi-volume-up'"
            variant="text"
            :aria-label="`hear ${w.name}`"
            @click="hear(`${w.name}: ${chord}`, w.line)"
          />
        </h3>
        <StaffDrawing v-if="w.score" :score="w.score" fingers />
        <p v-else class="trouble">{{ w.problem ?? '' }}</p>
      </section>
    </div>
    <LickDialog v-model="editing" :lick="lick.data.value" />
    <NewLineDialog v-model="sending" :with-lick="id" />
  </main>
  <EmptyPlace v-else-if="lick.error.value" title="This lick cannot be shown" :text="lick.error.value.message">
    <Button as="router-link" :to="{ name: 'licks' }" label="All licks" />
  </EmptyPlace>
</template>

<style scoped>
.lick {
  padding: 0.75rem 1.25rem 2rem;
}

header,
.choice {
  display: flex;
  align-items: center;
  gap: 0.6rem 1rem;
  flex-wrap: wrap;
  margin-bottom: 0.75rem;
}

h1 {
  font-size: 2rem;
}

.meta {
  color: var(--soft);
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}

.space {
  flex: 1;
}

.sheet {
  background: var(--raised);
  border: 1px solid var(--rule);
  border-radius: var(--round);
  padding: 0.75rem 1rem;
  min-width: 0;
}

.choice {
  margin-top: 1rem;
}

.chord {
  width: 6.5rem;
  font: 600 var(--text-l) var(--font-display);
}

.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(30rem, 100%), 1fr));
  gap: 1rem;
}

h2,
h3 {
  font-size: var(--text-l);
}

h3 {
  display: flex;
  align-items: center;
  gap: 0.75rem;
}

small {
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
}

.trouble {
  color: var(--danger);
}
</style>
