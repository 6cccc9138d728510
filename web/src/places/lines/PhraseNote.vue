<script setup lang="ts">
/* The phrase in hand: what it is to those beside it, and it is kept as a lick from where it stands. */
import { computed, ref, shallowRef } from 'vue'
import { askLine } from '../../api/kept'
import type { LickBody, LineNote } from '../../api/client'
import LickDialog from '../../making/LickDialog.vue'
import MusicText from '../../music/MusicText.vue'
import PressButton from '../../shell/PressButton.vue'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; note: LineNote }>()
const phrase = computed(() =>
  props.state.study.value?.report.phrases.find((p) => props.note.start >= p.start && props.note.start < p.end),
)
const keeping = ref(false)
const kept = shallowRef<LickBody>()
async function keep(ofKey: boolean) {
  const line = props.state.line.value
  if (!line || !phrase.value) return
  try {
    kept.value = await askLine.keep(line, phrase.value.first, phrase.value.last, ofKey)
    keeping.value = true
  } catch (e) {
    props.state.refuse(e)
  }
}
</script>

<template>
  <p v-if="phrase" class="phrase">
    <span
      >Phrase <b>{{ phrase.name }}</b>, <MusicText :said="phrase.says"
    /></span>
    <PressButton title="its degrees are of the chord: it moves to other chords" @click="keep(false)"
      >Keep as a lick</PressButton
    >
    <PressButton title="its degrees are of the key, whatever chord sounds" @click="keep(true)">of the key</PressButton>
    <LickDialog v-model="keeping" :from="kept" />
  </p>
</template>

<style scoped>
.phrase {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.75rem;
  font-size: var(--text-s);
  line-height: 1.3;
  color: var(--soft);
}

b {
  color: var(--ink);
}

button {
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-decoration: underline;
  text-underline-offset: 0.2em;
  cursor: pointer;
}
</style>
