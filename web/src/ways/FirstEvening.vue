<script setup lang="ts">
/* Nothing is here yet: what is played, and which blues. One press makes its chart, and the way to its first landed tone begins. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import { useRouter } from 'vue-router'
import { useCatalogue, useChartChanges, usePlayer, useSavePlayer } from '../api/queries'
import MusicText from '../music/MusicText.vue'
import { readText } from '../api/queries'
import { titled } from '../music/titles'
import PressButton from '../shell/PressButton.vue'
import SegmentedChoice from '../shell/SegmentedChoice.vue'
import { blues } from './blues'
import { useWay } from './useWay'

const catalogue = useCatalogue()
const player = usePlayer()
const save = useSavePlayer()
const charts = useChartChanges()
const way = useWay()
const router = useRouter()
const plays = ref<'standard' | 'bass'>('standard')
const hand = ref<'right' | 'left'>('right')
const busy = ref(false)
const trouble = ref('')
const forms = computed(() =>
  blues.flatMap((b) => {
    const form = catalogue.data.value?.forms.find((f) => f.id === b.form)
    return form ? [{ ...b, name: form.name, about: form.about, title: titled(form.name, b.key) }] : []
  }),
)
async function begin(b: (typeof forms.value)[number]) {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    const was = player.data.value
    const tuning = catalogue.data.value?.tunings.find((t) => t.id === plays.value)
    const left = hand.value === 'left'
    if (was && tuning && (was.left !== left || was.tuning !== tuning.open)) {
      const neck = { tuning: tuning.open, scale: tuning.scale, frets: tuning.frets }
      await save.mutateAsync({ was, body: { ...was, ...(was.tuning === tuning.open ? {} : neck), left } })
    }
    const { text } = await readText({ key: b.key, form: b.form, beats: 4 })
    const made = await charts.create.mutateAsync({ title: b.title, key: b.key, feel: b.feel, tempo: b.tempo, beats: 4, text }) // prettier-ignore
    await way.begin('land', made.id)
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
  busy.value = false
}
</script>

<template>
  <section class="first">
    <h1>Your first evening</h1>
    <p>
      Undaris shows where the tones of each chord lie, and has you be on them when the chord changes. Say what you play,
      and take a blues.
    </p>
    <div class="choice">
      <SegmentedChoice
        v-model="plays"
        :options="[
          { id: 'standard', name: 'guitar' },
          { id: 'bass', name: 'bass' },
        ]"
        label="what you play"
      />
      <SegmentedChoice
        v-model="hand"
        :options="[
          { id: 'right', name: 'right-handed' },
          { id: 'left', name: 'left-handed' },
        ]"
        label="which way round"
      />
    </div>
    <ul>
      <li v-for="b in forms" :key="b.form">
        <PressButton class="blues" :disabled="busy" @click="begin(b)">
          <b><MusicText :said="b.title" /></b>
          <small
            >{{ b.about }} · <span>♩ {{ b.tempo }}</span></small
          >
        </PressButton>
      </li>
    </ul>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <Button label="Write a chart of my own" variant="outlined" @click="router.push({ name: 'new' })" />
  </section>
</template>

<style scoped>
.first {
  display: grid;
  justify-items: start;
  align-content: center;
  gap: var(--gap-m);
  min-height: 70vh;
  padding: 1rem clamp(1rem, 10%, 8rem);
}

h1 {
  font-size: 2.5rem;
}

p {
  max-width: 40rem;
  font-size: var(--text-l);
  color: var(--soft);
}

.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem 1.5rem;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 22rem), 1fr));
  gap: 0.75rem;
  width: 100%;
  max-width: 56rem;
  margin: 0;
  padding: 0;
  list-style: none;
}

.blues {
  display: grid;
  gap: 0.2rem;
  width: 100%;
  height: 100%;
  padding: 0.9rem 1.1rem;
  border: 1px solid var(--rule);
  border-left: 4px solid var(--third);
  border-radius: var(--round);
  background: var(--raised);
  color: inherit;
  text-align: left;
  cursor: pointer;
}

.blues:hover {
  background: var(--lit);
}

b {
  font: 600 var(--text-l) / 1.2 var(--font-display);
}

small {
  color: var(--soft);
}

small span {
  white-space: nowrap;
}

p.trouble {
  color: var(--danger);
}
</style>
