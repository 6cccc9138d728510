<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import { playing, useLick } from '../../api/kept'
import type { LickRow } from '../../api/client'
import { useBand } from '../../band/useBand'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { engrave } from '../../music/text'
import StaffDrawing from '../../notation/StaffDrawing.vue'

/* Staves are drawn when they come into view: a shelf may be long. */
const props = defineProps<{ lick: LickRow }>()
const card = ref<HTMLElement>()
const visible = useElementVisibility(card, { rootMargin: '300px' })
const drawn = ref(false)
const whole = useLick(computed(() => (drawn.value ? props.lick.id : 0)))
const problem = computed(() => props.lick.problem ?? whole.data.value?.problem ?? whole.error.value?.message)
watch(visible, (v) => v && (drawn.value = true), { immediate: true })
const band = useBand()
const mine = computed(() => band.audition?.title === props.lick.title)
const clock = () => (mine.value ? band.ticks : undefined)
function hear() {
  if (mine.value && band.playing) return band.stop()
  const line = whole.data.value?.line
  if (line) void band.hear({ title: props.lick.title, beats: line.beats, cues: [], load: playing(line) })
}
const over = computed(() =>
  props.lick.ofKey ? (props.lick.chord ? 'minor key' : 'major key') : `over ${engrave(`C${props.lick.chord}`)}`,
)
</script>

<template>
  <li ref="card" class="card">
    <header>
      <RouterLink :to="{ name: 'lick', params: { id: lick.id } }">{{ lick.title }}</RouterLink>
      <span class="over"
        ><MusicText v-if="!lick.ofKey" :said="over" /><template v-else>{{ over }}</template></span
      >
      <span class="lands" :title="`lands on ${engrave(lick.landsOn ?? '')}`"
        >to <MarkBadge :degree="lick.landsOn" :size="26"
      /></span>
      <Button
        :icon="mine && band.playing ? 'pi pi-stop' : 'pi pi-volume-up'"
        variant="text"
        :aria-label="`hear ${lick.title}`"
        @click="hear"
      />
    </header>
    <div class="staff">
      <StaffDrawing v-if="whole.data.value?.score" :score="whole.data.value.score" :size="0.92" :clock="clock" />
      <p v-else-if="problem" class="problem">{{ problem }}</p>
    </div>
    <footer>
      <span v-for="t in lick.tags" :key="t">{{ t }}</span>
      <span v-if="lick.leans.length" class="leans">leans on {{ lick.leans.map(engrave).join(', ') }}</span>
      <span class="begins">begins on {{ lick.begins }}</span>
      <span v-if="whole.data.value?.wide" class="wide" :title="whole.data.value.wide">wide stretch</span>
      <span v-if="lick.level" :title="lick.hard">level {{ lick.level }}</span>
    </footer>
  </li>
</template>

<style scoped>
.card {
  background: var(--raised);
  border: 1px solid var(--rule);
  border-radius: var(--round);
  padding: 0.5rem 0.9rem 0.7rem;
  min-height: 14rem;
  display: flex;
  flex-direction: column;
}

header {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}

header a {
  font: 600 var(--text-l) var(--font-display);
  text-decoration: none;
  flex: 1;
  min-height: var(--target);
  display: flex;
  align-items: center;
}

header a:hover {
  text-decoration: underline;
}

.over,
.lands {
  color: var(--soft);
  white-space: nowrap;
}

.lands {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
}

.staff {
  flex: 1;
}

footer {
  display: flex;
  gap: 0.5rem;
  color: var(--soft);
  font-size: var(--text-s);
}

.problem {
  color: var(--danger);
}
</style>
