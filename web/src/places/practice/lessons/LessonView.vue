<script setup lang="ts">
/* One assignment: its words and things, its aims with how far they are; what a pupil gives back, or what pupils gave. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import type { Lesson, LessonAim } from '../../../api/client'
import MusicText from '../../../music/MusicText.vue'
import { placeOf } from '../today/usePlan'
import AimProgress from './AimProgress.vue'
import OwnName from './OwnName.vue'
import ResultsView from './ResultsView.vue'

const props = defineProps<{ lesson: Lesson }>()
const words = ref('')
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' })
const things = computed(() => {
  const l = props.lesson
  const list = (name: string, all: Lesson['charts'], place: string) =>
    all.map((t) => ({ ...t, what: name, to: { name: place, params: { id: t.id } } }))
  return [
    ...list('chart', l.charts, 'bench'),
    ...list('lick', l.licks, 'lick'),
    ...list('line', l.lines, 'line'),
    ...list('exercise', l.exercises, 'line'),
  ]
})
function place(a: LessonAim) {
  const kind = ({ changes: 'changes', calls: 'calls', line: 'line', exercise: 'line' } as const)[a.kind as 'line']
  if (!kind) return undefined
  const { mode = 'land', tempo, key, degree: start } = a
  return placeOf({ kind, chart: a.thing, line: a.thing, mode, tempo, key, start }, 0)
}
/* How far pupils came with an aim: what came back last of each. */
const others = (a: LessonAim) =>
  props.lesson.results
    .filter((r, i, all) => all.findIndex((o) => o.pupil === r.pupil) === i)
    .flatMap((r) => r.aims.filter((x) => x.says === a.says).map((aim) => ({ pupil: r.pupil, aim })))
const back = computed(() => {
  const query = new URLSearchParams(words.value.trim() ? { words: words.value.trim() } : {})
  return `/api/assignments/${props.lesson.id}/results?${query}`
})
</script>

<template>
  <article class="lesson">
    <header>
      <h2>{{ lesson.title }}</h2>
      <p class="soft">
        {{ lesson.given ? `from ${lesson.from}, here since ${day.format(new Date(lesson.since))}` : 'made here' }}
      </p>
      <span class="space" />
      <Button
        v-if="!lesson.given"
        as="a"
        :href="`/api/assignments/${lesson.id}/file`"
        download
        icon="pi pi-download"
        label="Save as a file"
        title="one file, to be given to a pupil"
      />
    </header>
    <p v-if="lesson.words" class="words">{{ lesson.words }}</p>
    <ul v-if="things.length" class="things" aria-label="what belongs to it">
      <li v-for="(t, i) in things" :key="i">
        <small>{{ t.what }}</small>
        <span v-if="t.gone">{{ t.title }} <small>is not here</small></span>
        <RouterLink v-else :to="t.to"><MusicText :said="t.title" /></RouterLink>
      </li>
    </ul>
    <ol v-if="lesson.aims.length" class="aims" aria-label="aims">
      <li v-for="(a, i) in lesson.aims" :key="i">
        <AimProgress :aim="a" :words="a.words" :others="lesson.given ? undefined : others(a)" />
        <Button
          v-if="lesson.given && place(a)"
          as="router-link"
          :to="place(a)!"
          :label="a.reached ? 'Once more' : 'Practise'"
          :variant="a.reached ? 'outlined' : undefined"
        />
      </li>
    </ol>
    <section v-if="lesson.given" class="return">
      <OwnName :to="lesson.from" />
      <Textarea
        v-model="words"
        rows="2"
        maxlength="2000"
        :aria-label="`a word to ${lesson.from}`"
        :placeholder="`A word to ${lesson.from}`"
      />
      <Button
        as="a"
        :href="back"
        download
        icon="pi pi-download"
        label="Return results"
        :title="`one file, to be given to ${lesson.from}`"
      />
    </section>
    <template v-else>
      <ResultsView v-for="r in lesson.results" :key="r.id" :results="r" />
      <p v-if="!lesson.results.length" class="soft">
        Give the file to a pupil. What they return is opened here, and stands beside the aims.
      </p>
    </template>
  </article>
</template>

<style scoped>
.lesson {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
}

header {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 0.25rem 1rem;
}

h2 {
  font: 600 1.8rem / 1.1 var(--font-display);
}

.space {
  flex: 1;
}

.soft,
small {
  color: var(--soft);
}

.words {
  white-space: pre-line;
  font-size: var(--text-l);
  max-width: 44rem;
}

.things {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.5rem;
}

.things li {
  display: grid;
}

.aims {
  list-style: none;
  margin: 0;
  padding: 0;
}

.aims li {
  display: flex;
  align-items: center;
  gap: 1rem;
  padding: 0.5rem 0;
  border-top: 1px solid var(--rule);
}

.return {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 0.75rem;
}

.return textarea {
  flex: 1 1 18rem;
}
</style>
