<script setup lang="ts">
/* What a text says beside its chords, in which order they are played, and which key they sound like. The player decides. */
import { computed } from 'vue'
import Button from 'primevue/button'
import type { ChartBody, Reading } from '../../api/client'
import { useCatalogue } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import { engrave, spoken } from '../../music/text'

const props = defineProps<{ reading: Reading; body: ChartBody }>()
const catalogue = useCatalogue()
const emit = defineEmits<{ take: [name: string, part: Partial<ChartBody>] }>()
const found = computed(() => {
  const { title, key, feel, tempo, swing, beats, reading, text } = props.reading.found
  const b = props.body
  return {
    ...(title && title !== b.title ? { title } : {}),
    ...(key && key !== b.key ? { key } : {}),
    ...(feel && feel !== b.feel ? { feel } : {}),
    ...(tempo && tempo !== b.tempo ? { tempo } : {}),
    ...(swing && swing !== b.swing ? { swing } : {}),
    ...(beats && beats !== b.beats ? { beats } : {}),
    ...(reading && reading !== b.reading ? { reading } : {}),
    ...(text ? { text } : {}),
  } satisfies Partial<ChartBody>
})
const says = computed(() =>
  [
    found.value.title && `“${found.value.title}”`,
    found.value.key && `${found.value.text ? 'sounds in' : 'in'} ${engrave(found.value.key)}`,
    found.value.reading && catalogue.data.value?.readings.find((r) => r.id === found.value.reading)?.about,
    found.value.feel && catalogue.data.value?.feels.find((f) => f.id === found.value.feel)?.name,
    found.value.tempo && `${found.value.tempo} beats a minute`,
    found.value.swing && `a swing of ${found.value.swing} %`,
    found.value.beats && `${found.value.beats} beats in a bar`,
  ].filter((s): s is string => !!s),
)
const guess = computed(() => (found.value.key ? undefined : props.reading.guesses[0]))
const second = computed(() => props.reading.guesses[1])
</script>

<template>
  <p v-for="s in reading.said" :key="s" class="note" role="status">Taken for granted: {{ s }}.</p>
  <p v-if="reading.order" class="note" role="status">Played: {{ reading.order }}.</p>
  <p v-if="says.length" class="note offer" role="status">
    <span>The text says: <MusicText :said="says.join(', ')" />.</span>
    <Button label="Take it over" size="small" variant="outlined" @click="emit('take', 'what the text says', found)" />
  </p>
  <p v-if="guess" class="note offer" role="status">
    <span>
      This sounds like <b><MusicText :symbol="guess.key" /></b>: <MusicText :said="guess.why" />.
      <template v-if="second">Or <MusicText :symbol="second.key" />: <MusicText :said="second.why" />.</template>
    </span>
    <Button
      v-for="g in reading.guesses"
      :key="g.key"
      :aria-label="`the key is ${spoken(g.key)}`"
      size="small"
      variant="outlined"
      @click="emit('take', 'key', { key: g.key })"
    >
      <span class="it">It is <MusicText :symbol="g.key" /></span>
    </Button>
  </p>
</template>

<style scoped>
.note {
  color: var(--soft);
}

.offer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.75rem;
}

.offer > span {
  flex: 1 1 18rem;
}

.it {
  white-space: nowrap;
}
</style>
