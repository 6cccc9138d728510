<script setup lang="ts">
/* What a teacher sets a pupil: made here, or opened from a file; how far it is, and what came back. */
import { useTitle } from '@vueuse/core'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import { useLesson, useLessonChanges, useLessons } from '../../../api/lessons'
import EmptyPlace from '../../../shell/EmptyPlace.vue'
import PressButton from '../../../shell/PressButton.vue'
import { useAddress } from '../../../shell/useAddress'
import { usePlan } from '../today/usePlan'
import LessonView from './LessonView.vue'
import MakeLesson from './MakeLesson.vue'

useTitle('Lessons · Undaris')
const address = useAddress()
const lessons = useLessons()
const changes = useLessonChanges()
const named = address.text('lesson')
const id = computed(() => Number(named.value) || lessons.data.value?.[0]?.id || 0)
const lesson = useLesson(id)
const plan = usePlan()
const making = ref(false)
const picker = ref<HTMLInputElement>()
const trouble = ref('')
/* What was left out of the file that was brought in last. */
const said = ref<string[]>([])
const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const about = (l: NonNullable<typeof lessons.data.value>[number]) => {
  const reached = l.aims ? `${l.reached} of ${l.aims} reached` : 'no aims'
  const back = l.results === 1 ? '1 result' : `${l.results} results`
  return l.problem ?? (l.given ? `from ${l.from} · ${reached}` : `made here · ${back}`)
}
async function bring(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  trouble.value = ''
  said.value = []
  try {
    const l = await changes.bring.mutateAsync(file)
    said.value = l.said
    named.value = `${l.id}`
    if (plan.kept.at < 0) plan.end() // what is planned knows nothing of it yet
  } catch (e) {
    trouble.value = `${file.name}: ${e instanceof Error ? e.message : e}`
  }
}
</script>

<template>
  <div class="lessons">
    <header>
      <h1>Lessons</h1>
      <span class="space" />
      <Button label="Open a file" icon="pi pi-upload" variant="outlined" @click="picker?.click()" />
      <Button label="Set an assignment" icon="pi pi-plus" @click="making = true" />
      <input
        ref="picker"
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="an assignment, or results"
        @change="bring"
      />
    </header>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <section v-if="said.length" class="said" role="status">
      <p v-for="s in said" :key="s">{{ s }}.</p>
    </section>
    <EmptyPlace
      v-if="lessons.data.value && !lessons.data.value.length"
      title="No lessons yet"
      text="A teacher sets charts, licks, lines and aims, and gives them away as one file. A pupil opens it, practises, and gives back what came of it."
    />
    <div v-else-if="lessons.data.value" class="both">
      <ul aria-label="assignments">
        <li v-for="l in lessons.data.value" :key="l.id" :class="{ chosen: l.id === id }">
          <PressButton :aria-pressed="l.id === id" @click="((named = `${l.id}`), (said = []))">
            <b>{{ l.title || 'An assignment' }}</b>
            <small>{{ when.format(new Date(l.since)) }} · {{ about(l) }}</small>
          </PressButton>
          <Button
            icon="pi pi-trash"
            variant="text"
            :aria-label="`delete ${l.title}`"
            @click="changes.remove({ id: l.id, title: l.title })"
          />
        </li>
      </ul>
      <LessonView v-if="lesson.data.value" :key="lesson.data.value.id" :lesson="lesson.data.value" />
      <p v-else-if="lesson.error.value" class="trouble" role="alert">{{ lesson.error.value.message }}</p>
    </div>
    <EmptyPlace v-else-if="lessons.error.value" title="No answer" :text="lessons.error.value.message" />
    <MakeLesson v-model="making" @made="(made) => ((named = `${made}`), (said = []))" />
  </div>
</template>

<style scoped>
.lessons {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 1rem;
  padding: 0.75rem 1.25rem 1.5rem;
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

.both {
  display: grid;
  grid-template-columns: minmax(0, 20rem) minmax(0, 1fr);
  gap: 1.5rem;
  align-items: start;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid var(--rule);
}

li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  background: var(--raised);
}

li:last-child {
  border-bottom: 0;
}

.chosen {
  background: var(--lit);
}

li > button:first-child {
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

small {
  color: var(--soft);
}

.said {
  border-left: 3px solid var(--third);
  padding: 0.25rem 0 0.25rem 1rem;
}

.said p::first-letter {
  text-transform: uppercase;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

@media (width < 56.25em) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
