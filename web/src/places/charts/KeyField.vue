<script setup lang="ts">
/* The key of a chart. One that is chosen while chords are written waits for the player to say what becomes of them: they
   move, or stay and are named anew. */
import { computed } from 'vue'
import Button from 'primevue/button'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { useCatalogue } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'

/** What waits; empty where nothing does. */
const chosen = defineModel<string>('chosen', { required: true })
const props = defineProps<{
  musicKey: string
  /** chords are written */
  written: boolean
  /** moves them; tells whether it could */
  move: (key: string) => Promise<boolean>
}>()
const emit = defineEmits<{ name: [key: string] }>()
const catalogue = useCatalogue()
const modes = [
  { text: 'major', minor: false },
  { text: 'minor', minor: true },
]
const shown = computed(() => chosen.value || props.musicKey)
const tonic = computed(() => shown.value.replace(/m$/, ''))
const minor = computed(() => shown.value.endsWith('m'))
function choose(t: string, m: boolean) {
  const key = t + (m ? 'm' : '')
  chosen.value = ''
  if (key === props.musicKey) return
  if (props.written) chosen.value = key
  else emit('name', key)
}
async function take() {
  if (await props.move(chosen.value)) chosen.value = ''
}
function stay() {
  emit('name', chosen.value)
  chosen.value = ''
}
</script>

<template>
  <div class="row">
    <Select
      input-id="key"
      :model-value="tonic"
      :options="catalogue.data.value?.tonics ?? []"
      aria-label="tonic"
      @update:model-value="(t) => choose(t, minor)"
    >
      <template #value="{ value }"><MusicText :symbol="value ?? ''" /></template>
      <template #option="{ option }"><MusicText :symbol="option" /></template>
    </Select>
    <SelectButton
      :model-value="minor"
      :options="modes"
      option-label="text"
      option-value="minor"
      :allow-empty="false"
      aria-label="mode"
      @update:model-value="(m) => choose(tonic, m)"
    />
  </div>
  <div v-if="chosen" class="row ask" role="group" aria-label="what becomes of the chords">
    <Button label="Move the chords" size="small" title="they become those of the new key" @click="take" />
    <Button
      label="They stay"
      variant="outlined"
      size="small"
      title="only the key is named anew; the numerals change"
      @click="stay"
    />
    <Button label="Neither" variant="text" size="small" @click="chosen = ''" />
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

.ask {
  grid-column: 1 / -1;
  flex-wrap: wrap;
  justify-self: end;
}
</style>
