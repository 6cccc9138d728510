<script setup lang="ts">
/* What to practise today, why, and for how long: each part may be swapped, pinned or shortened; one press starts it. */
import { useTitle } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import Button from 'primevue/button'
import { readToday } from '../../../api/log'
import { here } from '../../../memory/here'
import MusicText from '../../../music/MusicText.vue'
import EmptyPlace from '../../../shell/EmptyPlace.vue'
import SegmentedChoice from '../../../shell/SegmentedChoice.vue'
import PlayerChooser from './PlayerChooser.vue'
import TonightNote from './TonightNote.vue'
import EveningChoice from './EveningChoice.vue'
import { usePlan, wishOf } from './usePlan'

useTitle('Today · Undaris')
const plan = usePlan()
const trouble = ref('')
const today = shallowRef<Awaited<ReturnType<typeof readToday>>>()
async function ask(seed: number, without: string[]) {
  today.value = await readToday({ ...wishOf(plan.kept), seed, without })
  return today.value.items
}
/** How many were asked for, whether one is on its way, and whether the last had nothing. */
let asked = 0
let [asking, nothing] = [false, false]
async function anew(): Promise<void> {
  const [mine, whose] = [++asked, here.player]
  trouble.value = ''
  asking = true
  try {
    const items = await ask(++plan.kept.seed, [])
    if (mine !== asked) return // another was asked for meanwhile
    if (whose !== here.player) return await anew() // this one is of the player before
    nothing = !items.length
    plan.take(items)
  } catch (e) {
    if (mine === asked) trouble.value = e instanceof Error ? e.message : String(e)
  } finally {
    if (mine === asked) asking = false
  }
}
async function swap(id: string) {
  try {
    const standing = plan.kept.items.map((i) => i.id)
    const kind = plan.kept.items.find((i) => i.id === id)?.kind
    const items = await ask(plan.kept.seed, [...plan.kept.without, ...standing])
    plan.swap(id, items.find((i) => i.kind === kind) ?? items.find((i) => i.kind === 'calls'))
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
watch(
  () => plan.kept.minutes,
  () => void anew(),
)
/* One that is over stands until the day is. */
const day = (at: string | Date) => new Date(at).toDateString()
if (!plan.kept.items.length || (plan.over && plan.kept.begun && day(plan.kept.begun) !== day(new Date()))) void anew()
// How far an evening's charts are is told beside a plan that stands, too.
else if (plan.kept.evening.length) void ask(plan.kept.seed, []).catch(() => {})
/* With another player the plan is another, and may be none yet. */
watch(
  () => plan.kept.items.length,
  (n) => n || asking || nothing || void anew(),
)
const total = computed(() => plan.kept.items.reduce((n, i) => n + i.minutes, 0))
const broken = computed(() => plan.kept.at >= 0 && !plan.over && !plan.kept.running)
const lengths = [10, 20, 30, 45, 60].map((n) => ({ id: `${n}`, name: `${n}` }))
const minutes = computed({
  get: () => `${plan.kept.minutes}`,
  set: (v) => (plan.kept.minutes = Number(v)),
})
</script>

<template>
  <div class="today">
    <header>
      <h1>Today</h1>
      <PlayerChooser @changed="(plan.end(), anew())" />
      <p class="soft">{{ total }} minutes</p>
      <span class="space" />
      <SegmentedChoice v-model="minutes" :options="lengths" label="how many minutes" />
      <Button label="Plan anew" variant="outlined" @click="anew" />
      <Button
        v-if="!plan.kept.running"
        :disabled="!plan.kept.items.length"
        :label="broken ? 'Go on' : 'Start'"
        icon="pi pi-play"
        @click="plan.go"
      />
      <Button v-else label="Pause" icon="pi pi-pause" @click="plan.pause" />
      <Button v-if="plan.kept.at >= 0" label="End it" variant="text" @click="(plan.end(), anew())" />
    </header>
    <EveningChoice :said="today?.evening" :ready="today?.ready ?? []" @changed="anew" />
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <TonightNote v-if="plan.over" />
    <p v-else-if="plan.item?.kind === 'rest' && plan.kept.running" class="big" role="status">
      Lay the instrument down. Stretch the hands; if anything hurts, stop for today.
    </p>
    <p v-if="today?.known === 0" class="soft">
      Nothing is known yet, so this begins with the roots of your charts; with every call and chorus the plan knows
      better.
    </p>
    <p v-if="today?.left.length" class="soft">Not counted as it was noted: {{ today.left.join('; ') }}.</p>
    <ol v-if="plan.kept.items.length" class="items">
      <li
        v-for="(i, k) in plan.kept.items"
        :key="i.id"
        :class="[i.kind, { now: k === plan.kept.at, past: k < plan.kept.at }]"
      >
        <span class="minutes">{{ i.minutes }}<small>min</small></span>
        <div class="what">
          <p class="title">
            <MusicText :said="i.title" /> <small class="kind">{{ i.new ? 'new' : i.kind }}</small>
          </p>
          <p class="why"><MusicText :said="`${i.why}. Done: ${i.done}.`" /></p>
          <p v-if="i.turn && i.turn.length > 1" class="why" :title="i.turn.join('; ')">
            In turn: <MusicText :said="i.turn.slice(0, 3).join('; ')" /><template v-if="i.turn.length > 3"
              >; and {{ i.turn.length - 3 }} more</template
            >.
          </p>
        </div>
        <span class="hands">
          <Button
            icon="pi pi-minus"
            variant="text"
            :aria-label="`a minute less for ${i.title}`"
            title="a minute less"
            @click="plan.shorten(i.id, -1)"
          />
          <Button
            icon="pi pi-plus"
            variant="text"
            :aria-label="`a minute more for ${i.title}`"
            title="a minute more"
            @click="plan.shorten(i.id, 1)"
          />
          <Button
            icon="pi pi-thumbtack"
            :variant="plan.kept.pinned.includes(i.id) ? undefined : 'text'"
            :aria-pressed="plan.kept.pinned.includes(i.id)"
            :aria-label="`keep ${i.title} when it is planned anew`"
            title="stays when it is planned anew"
            @click="plan.pin(i.id)"
          />
          <Button
            icon="pi pi-sync"
            variant="text"
            :aria-label="`something else for ${i.title}`"
            title="something else"
            @click="swap(i.id)"
          />
        </span>
      </li>
    </ol>
    <EmptyPlace v-else-if="!trouble" title="Nothing to plan" text="Make a chart first: the plan ends in music." />
  </div>
</template>

<style scoped>
.today {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.9rem;
  padding: 0.75rem 1.25rem 1.5rem;
  max-width: 70rem;
}

header {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem 0.75rem;
}

h1 {
  font-size: var(--text-xl);
}

.space {
  flex: 1;
}

.soft,
small,
.why {
  color: var(--soft);
}

.why::first-letter {
  text-transform: uppercase;
}

.big {
  font: 600 1.8rem / 1.25 var(--font-display);
}

.items {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  align-items: center;
  gap: 1rem;
  padding: 0.55rem 0.5rem;
  border-bottom: 1px solid var(--rule);
}

li.now {
  background: var(--lit);
}

li.past {
  opacity: 0.6;
}

.minutes {
  flex: none;
  width: 3.6rem;
  font: 600 1.9rem / 1 var(--font-display);
  text-align: right;
}

.minutes small {
  font: 400 var(--text-s) var(--font-text);
  margin-left: 0.2rem;
}

.what {
  flex: 1;
  min-width: 0;
}

.title {
  font-size: var(--text-l);
  font-weight: 600;
}

.kind {
  font-weight: 400;
  margin-left: 0.5rem;
}

.hands {
  display: flex;
  flex: none;
}

.trouble {
  color: var(--danger);
}

@media (width < 43.75em) {
  li {
    flex-wrap: wrap;
    justify-content: end;
  }

  .what {
    flex-basis: calc(100% - 4.6rem);
  }
}
</style>
