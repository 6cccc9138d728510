<script setup lang="ts">
/* One lick: over any chord in both ways, and through the changes. */
import { readFrets } from '../../neck/region'
import { useQuery } from '@tanstack/vue-query'
import { useTitle } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { engrave } from '../../music/text'
import { answer, api, type Lick, type LickBody, type LineBody } from '../../api/client'
import { lickBody, playing, useLick, useLickChanges } from '../../api/kept'
import { useBand } from '../../band/useBand'
import { useLanding } from '../../listen/landing'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import OnRecord from '../../music/OnRecord.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import StaffDrawing from '../../notation/StaffDrawing.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import TickBox from '../../shell/TickBox.vue'
import NewLineDialog from '../../making/NewLineDialog.vue'
import HistoryButtons from '../../shell/HistoryButtons.vue'
import SaveWords from '../../shell/SaveWords.vue'
import TitleField from '../../shell/TitleField.vue'
import { throughHistory, useCommands } from '../../shell/useCommands'
import { useOpening } from '../../document/useOpening'
import LickSpots from './LickSpots.vue'
import LickFields from './LickFields.vue'
import { useLickFrets } from './useLickFrets'
import { useLickWork } from './useLickWork'
import { useLearning } from './useLearning'
import { useAddress } from '../../shell/useAddress'

const address = useAddress()
const { id } = address
const router = useRouter()
const lick = useLick(id)
const changes = useLickChanges()
const work = useLickWork(() => opening.keeper())
const { shown } = work
const opening = useOpening<LickBody, Lick>({
  stored: lick,
  keeper: (l) => changes.keeper(l.id, l.title),
  path: (id) => `/api/licks/${id}`,
  part: lickBody,
  open: work.show,
  bring: work.bring,
  body: work.body,
  state: work.state,
  join: work.join,
  resume: work.settled,
})
useCommands(throughHistory(work))
onBeforeUnmount(() => void changes.fresh())
useTitle(computed(() => `${shown.value?.title ?? 'Lick'} · Undaris`))
const chord = address.text('over', 'F7')
const { frets, windows } = useLickFrets()
const follow = address.yes('follow')
const asked = computed(() => {
  return { chord: chord.value, ...(readFrets(frets.value) ?? { low: 7, high: 11 }), follow: follow.value }
})
const ways = useQuery({
  queryKey: ['ways', id, asked, computed(() => (work.state.value === 'saved' ? opening.keeper()?.version() : ''))],
  queryFn: () => answer(api.GET('/api/licks/{id}/ways', { params: { path: { id: id.value }, query: asked.value } })),
  placeholderData: (before) => before,
})
const { learn } = useLearning()
const land = useLanding()
const band = useBand()
const clock = () => (band.audition?.title === shown.value?.title ? band.ticks : undefined)
const heard = (title: string) => band.audition?.title === title && band.playing
const over = (title: string, line: LineBody) => ({ title, beats: line.beats, tempo: line.tempo, cues: [], load: playing(line) }) // prettier-ignore
const hear = (title: string, line: LineBody) => (heard(title) ? band.stop() : void band.hear(over(title, line)))
/** The form that is shown and heard: plain, or dressed with a kind of device more each time. */
const levels = computed(() => shown.value?.levels ?? [])
const level = address.text('level', 'written')
const form = computed(() => levels.value.find((v) => v.id === level.value) ?? shown.value)
/* The strip plays what is looked at. */
watch(form, (f) => f?.line && shown.value && band.offer(over(shown.value.title, f.line)))
onBeforeUnmount(() => band.offer(undefined))
const changing = ref(false)
const sending = ref(false)
async function remove() {
  if (!shown.value) return
  await changes.remove({ id: id.value, title: shown.value.title, version: opening.keeper()!.version() })
  void router.push({ name: 'licks' })
}
</script>

<template>
  <div v-if="shown" class="lick">
    <header>
      <TitleField
        :title="work.body.value?.title ?? ''"
        label="title of the lick"
        @change="(title) => work.change('title', { title }, true)"
      />
      <p class="meta">
        {{ shown.tags.join(' · ') }}<template v-if="shown.tags.length"> · </template>lands on
        <MarkBadge :degree="shown.landsOn" :size="26" /><template v-if="shown.leans.length">
          · leans on <MarkBadge v-for="d in shown.leans" :key="d" :degree="d" :size="26"
        /></template>
        <SaveWords :state="work.state.value" :why="changing ? undefined : work.why.value" />
      </p>
      <span class="space" />
      <HistoryButtons />
      <Button
        v-if="form?.line"
        :icon="heard(shown.title) ? 'pi pi-stop' : 'pi pi-volume-up'"
        label="Hear"
        variant="outlined"
        @click="hear(shown.title, form.line)"
      />
      <Button
        v-if="shown.under"
        :icon="heard(`${shown.title} ${shown.holds}`) ? 'pi pi-stop' : 'pi pi-volume-up'"
        :label="`over ${engrave(shown.holds!)}`"
        title="over a chord that holds what it leans on"
        variant="outlined"
        @click="hear(`${shown.title} ${shown.holds}`, shown.under)"
      />
      <Button
        icon="pi pi-pencil"
        label="Change"
        variant="outlined"
        :aria-expanded="changing"
        @click="changing = !changing"
      />
      <Button icon="pi pi-trash" variant="text" aria-label="delete this lick" @click="remove" />
      <Button
        v-if="shown.line"
        icon="pi pi-step-forward"
        label="Learn it"
        title="as a line over its chord, part by part, each at its own tempo"
        variant="outlined"
        @click="learn(shown)"
      />
      <Button
        v-if="shown.line"
        label="Land it"
        title="over the chart in hand, turned at every change; you are heard and judged"
        variant="outlined"
        @click="land({ mode: 'lick', with: id })"
      />
      <Button icon="pi pi-send" label="Through the changes" @click="sending = true" />
    </header>
    <p v-if="work.trouble.value" class="trouble" role="alert">{{ work.trouble.value }}</p>
    <LickFields v-if="changing" :work="work" />
    <section class="sheet">
      <SegmentedChoice
        v-if="levels.length"
        v-model="level"
        class="levels"
        :options="levels"
        label="how far it is dressed"
      />
      <StaffDrawing v-if="form?.score" :score="form.score" fingers :clock="clock" />
      <p v-else class="trouble">{{ shown.problem }}</p>
      <p v-if="shown.wide" class="wide">Wide stretch: {{ shown.wide }}</p>
      <p v-if="shown.remark || shown.source || shown.home || shown.heard" class="beside">
        <span v-if="shown.home">written over <MusicText :symbol="shown.home.chord ?? ''" /></span>
        <span v-if="shown.source">from {{ shown.source }}</span>
        <OnRecord v-if="shown.heard" :heard="shown.heard" />
        <span v-if="shown.remark" class="remark">{{ shown.remark }}</span>
      </p>
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
        <p v-if="w.wide" class="wide">Wide stretch: {{ w.wide }}</p>
      </section>
    </div>
    <LickSpots
      v-if="!ways.error.value"
      :id="id"
      :chord="chord"
      :follow="follow"
      :version="String(lick.data.value?.version ?? '')"
      :heard="heard"
      @hear="hear"
    />
    <NewLineDialog v-model="sending" :with-lick="id" />
  </div>
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

.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.2rem;
  margin: 0.4rem 0 0;
  color: var(--soft);
}

.remark {
  white-space: pre-line;
}

.levels {
  width: max-content;
  max-width: 100%;
  margin-bottom: 0.5rem;
}
</style>
