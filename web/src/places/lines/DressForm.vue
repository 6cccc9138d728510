<script setup lang="ts">
/* How a line is dressed: ornaments over its plain notes, both kept; and how the picking hand goes through it. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import { askLine } from '../../api/kept'
import { useCatalogue } from '../../api/queries'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import { useAddress } from '../../shell/useAddress'
import { adorned, levels } from '../../document/level'
import FieldLine from './FieldLine.vue'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState }>()
const catalogue = useCatalogue()
const level = useAddress().oneOf(
  'level',
  levels.map((l) => l.id),
)
const amounts = [
  { id: 0.25, name: 'few' },
  { id: 0.5, name: 'some' },
  { id: 1, name: 'many' },
]
const amount = ref(0.5)
const seed = ref(0)
const ways = computed(() => catalogue.data.value?.ways ?? [])
const bent = computed(() => props.state.line.value?.notes.filter((n) => n.bend).length ?? 0)
/** The levels that this line has. */
const offered = computed(() =>
  levels.filter((l) => l.id === 'ornamented' || (l.id === 'plain' ? count.value : bent.value)),
)
const count = computed(() => props.state.line.value?.notes.filter((n) => adorned(n, ways.value)).length ?? 0)
function adorn(part: number) {
  const line = props.state.line.value
  if (!line) return
  seed.value++
  level.value = 'ornamented'
  void props.state.take(askLine.adorn(line, part, seed.value))
}
function double() {
  const line = props.state.line.value
  if (line) void props.state.take(askLine.octaves(line))
}
function pick(id: string) {
  const line = props.state.line.value
  if (line) void props.state.take(askLine.pick(line, id))
}
</script>

<template>
  <div class="form">
    <h2>Ornaments <small>turns, hammered doubles, trills; each note stays in its place</small></h2>
    <FieldLine label="How many">
      <SegmentedChoice v-model="amount" :options="amounts" label="how many ornaments" />
    </FieldLine>
    <p class="do">
      <Button :label="count ? 'Others' : 'Add them'" @click="adorn(amount)" />
      <Button v-if="count" label="Take them away" variant="outlined" @click="adorn(0)" />
    </p>
    <FieldLine v-if="offered.length > 1" label="Level">
      <SegmentedChoice v-model="level" :options="offered" label="which level is shown and heard" />
    </FieldLine>
    <p v-if="count" class="hint">
      {{ count }} {{ count === 1 ? 'note is' : 'notes are' }} ornamented. Both levels are kept: plain is the same line
      without them, seen, heard and in files.
    </p>
    <p v-if="bent" class="hint">
      Without bends is heard: the goal of each bend as it sounds where it is fretted, to be matched by the bend.
    </p>
    <h2>Octaves <small>each note with the one above it, a silenced string between them</small></h2>
    <p class="do"><Button label="Double it" variant="outlined" @click="double" /></p>
    <h2>Picking hand</h2>
    <ul class="pickings">
      <li v-for="p in catalogue.data.value?.pickings ?? []" :key="p.id">
        <Button :label="p.name" size="small" variant="outlined" @click="pick(p.id)" />
        <span>{{ p.about }}</span>
      </li>
    </ul>
    <p class="hint">
      Strokes are drawn over the staff, and what they ask for at this tempo is told; one that comes too soon is not
      written. Locked bars stay as they are.
    </p>
  </div>
</template>

<style scoped>
h2 {
  font-size: var(--text-l);
}

small {
  display: block;
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
}

.pickings li {
  display: grid;
  grid-template-columns: 9.5rem minmax(0, 1fr);
  align-items: center;
  gap: 0.8rem;
  min-height: 2.75rem;
  padding: 0.35rem 0;
  border-top: 1px solid var(--rule);
  font-size: var(--text-s);
}
</style>
