<script setup lang="ts">
/* A chart is written: form, key, feel, and the chords as text. */
import { useTitle } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { useQuery } from '@tanstack/vue-query'
import { answer, api, type Chart, type ChartBody } from '../../api/client'
import { chartBody, useCatalogue, useChartChanges } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import FieldRow from '../../shell/FieldRow.vue'
import HistoryButtons from '../../shell/HistoryButtons.vue'
import SaveWords from '../../shell/SaveWords.vue'
import { throughHistory, useCommands } from '../../shell/useCommands'
import { useOpening } from '../../document/useOpening'
import BarTiles from './BarTiles.vue'
import KeyField from './KeyField.vue'
import PlayedFields from './PlayedFields.vue'
import ReadingNotes from './ReadingNotes.vue'
import { pointAt } from '../../sheet/places'
import ProblemList from '../../sheet/ProblemList.vue'
import SwapNotes from './SwapNotes.vue'
import { titled } from '../../music/titles'
import { written } from './tiles'
import { blank, fieldsOf, useChart } from './useChart'
import { useSwap } from './useSwap'

const route = useRoute()
const router = useRouter()
const id = Number(route.params.id) || 0
useTitle(id ? 'Edit chart · Undaris' : 'New chart · Undaris')
const catalogue = useCatalogue()
const changes = useChartChanges()
const draft = useChart(id ? () => opening.keeper() : undefined)
const { reading, wrong } = draft
const { swapping, swap, putIn } = useSwap(draft)
const body = computed(() => draft.body.value ?? blank)

const saved = useQuery({
  queryKey: ['chart', id],
  queryFn: () => answer(api.GET('/api/charts/{id}', { params: { path: { id } } })),
  enabled: id > 0,
})
const opening = useOpening<ChartBody, Chart>({
  stored: saved,
  keeper: (c) => changes.keeper(id, c.title),
  path: (id) => `/api/charts/${id}`,
  part: chartBody,
  open: (c) => draft.open(chartBody(c)),
  bring: draft.bring,
  body: draft.body,
  state: draft.state,
  join: draft.join,
})
if (!id) void draft.begin()

/* A key that waits for what becomes of the chords. What a form wrote just now is written anew in it; nobody need be asked. */
const chosen = ref('')
const shownKey = computed(() => chosen.value || body.value.key)
const tonic = computed(() => shownKey.value.replace(/m$/, ''))
const minor = computed(() => shownKey.value.endsWith('m'))
const move = (key: string) => draft.rewrite('key', { key, from: body.value.key })
const laid = ref<string>()
watch(chosen, async (key) => {
  if (key && laid.value === body.value.text && (await move(key))) {
    chosen.value = ''
    laid.value = body.value.text
  }
})
async function setForm(form: string) {
  const f = catalogue.data.value?.forms.find((x) => x.id === form)
  if (!f) return
  const key = f.minor === minor.value ? shownKey.value : tonic.value + (f.minor ? 'm' : '')
  chosen.value = ''
  await swap('form', f.name, { form, key })
  if (swapping.value) return
  laid.value = body.value.text
  laidForm.value = f.name
}
const setTurnaround = (id: string) =>
  swap('turnaround', turnarounds.value.find((t) => t.id === id)?.name ?? '', { turnaround: id })
/* The text may be in numerals of the key: then it says the same in every key. */
const numbered = computed(() => reading.value?.numerals === body.value.text.trim())
const laidForm = ref('')
const suggested = computed(() => laidForm.value && titled(laidForm.value, body.value.key))
const turnarounds = computed(() => catalogue.data.value?.turnarounds.filter((t) => t.minor === minor.value) ?? [])
const forms = computed(() => catalogue.data.value?.forms ?? [])

const field = ref<{ $el: HTMLTextAreaElement }>()
/** Selects the place in the text that a problem is about. */
/** Makes a new chart, or keeps what is not kept yet; then the band can play it. */
async function done() {
  if (chosen.value) {
    wrong.value = { key: 'First say what becomes of the chords: they move, or they stay.' }
    return
  }
  if (id) {
    if (draft.state.value === 'saved' || (await draft.now())) await router.push({ name: 'bench', params: { id } })
    return
  }
  try {
    const made = await changes.create.mutateAsync({
      ...body.value,
      title: body.value.title.trim() || suggested.value,
    })
    await draft.drawer.made()
    await router.push({ name: 'bench', params: { id: made.id } })
  } catch (e) {
    wrong.value = fieldsOf(e)
  }
}
const typed = (name: string, part: Partial<ChartBody>) => draft.change(name, part, true)
useCommands(throughHistory(draft))
onBeforeUnmount(() => void changes.fresh())
</script>

<template>
  <EmptyPlace v-if="id && saved.error.value" title="No such chart" :text="saved.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
  </EmptyPlace>
  <!-- Nothing is asked before it is there: what would be written into it then would be lost. -->
  <div v-else-if="draft.body.value" class="editor">
    <header>
      <h1>{{ id ? 'Edit chart' : 'New chart' }}</h1>
      <SaveWords v-if="id" :state="draft.state.value" :why="draft.why.value" />
      <HistoryButtons />
      <Button
        :label="id ? 'Play it' : 'Make chart'"
        :disabled="!reading || reading.problems.length > 0"
        @click="done"
      />
    </header>
    <p v-if="wrong.all || draft.trouble.value" class="wrong" role="alert">{{ wrong.all || draft.trouble.value }}</p>
    <div class="columns">
      <form @submit.prevent="done">
        <FieldRow label="Title" for="title" :wrong="wrong.title">
          <InputText
            id="title"
            :model-value="body.title"
            maxlength="120"
            :placeholder="suggested || 'what the band calls it'"
            fluid
            @update:model-value="(title) => typed('title', { title: title ?? '' })"
          />
        </FieldRow>
        <FieldRow label="Key" for="key" :wrong="wrong.key">
          <KeyField
            v-model:chosen="chosen"
            :music-key="body.key"
            :written="body.text.trim() !== ''"
            :move="move"
            @name="(key) => draft.change('key', { key })"
          />
        </FieldRow>
        <FieldRow label="Form" for="form" hint="writes the chords for you" :wrong="wrong.form">
          <Select
            input-id="form"
            :model-value="null"
            :options="forms"
            option-label="name"
            option-value="id"
            placeholder="choose a form"
            fluid
            @update:model-value="setForm"
          >
            <template #option="{ option }">
              <span class="option"
                ><MusicText :said="option.name" /><small>{{ option.about }}</small></span
              >
            </template>
          </Select>
        </FieldRow>
        <FieldRow label="Turnaround" for="turnaround" hint="over the last two bars" :wrong="wrong.turnaround">
          <Select
            input-id="turnaround"
            :model-value="null"
            :options="turnarounds"
            option-label="name"
            option-value="id"
            placeholder="swap the last two bars"
            :disabled="!reading || reading.problems.length > 0"
            fluid
            @update:model-value="setTurnaround"
          >
            <template #option="{ option }">
              <span class="option"
                >{{ option.name }}<small><MusicText :symbol="option.text" /></small
              ></span>
            </template>
          </Select>
        </FieldRow>
        <PlayedFields :body="body" :wrong="wrong" @change="draft.change" @typed="typed" />
        <FieldRow label="Tags" for="tags" hint="with commas between" :wrong="wrong.tags">
          <InputText
            id="tags"
            :model-value="body.tags ?? ''"
            maxlength="200"
            placeholder="slow, duo, evening"
            fluid
            @update:model-value="(tags) => typed('tags', { tags: tags ?? '' })"
          />
        </FieldRow>
        <FieldRow label="Remarks" for="remarks" hint="for the band, or for you" :wrong="wrong.remarks">
          <Textarea
            id="remarks"
            :model-value="body.remarks ?? ''"
            rows="3"
            maxlength="4000"
            fluid
            @update:model-value="(remarks) => typed('remarks', { remarks: remarks ?? '' })"
          />
        </FieldRow>
      </form>
      <section class="text" aria-label="the chords">
        <label for="text"
          >Chords
          <small
            >bars between lines |, % for the bar again, |: :| repeats, numerals; or paste a song as you found it</small
          ></label
        >
        <Textarea
          id="text"
          ref="field"
          :model-value="body.text"
          rows="6"
          spellcheck="false"
          autocomplete="off"
          placeholder="| C7 | F7 | C7 | % |"
          :invalid="!!reading?.problems.length || !!wrong.text"
          fluid
          @update:model-value="(text) => typed('chords', { text: text ?? '' })"
        />
        <Button
          v-if="reading && !reading.problems.length"
          class="spelling"
          :label="numbered ? 'Write it in chord names' : 'Write it in numerals'"
          variant="text"
          size="small"
          @click="draft.change('spelling', { text: numbered ? reading.text : reading.numerals })"
        />
        <Button
          v-if="reading?.asH"
          label="Write the names of notes as they are read here"
          variant="outlined"
          size="small"
          @click="draft.change('chords', { text: reading.asH! })"
        />
        <ReadingNotes v-if="reading" :reading="reading" :body="body" @take="draft.change" />
        <ProblemList
          v-if="reading?.problems.length"
          :problems="reading.problems"
          @point="(offset, length) => pointAt(field!.$el as HTMLTextAreaElement, offset, length)"
          @mend="draft.mend"
        />
        <p v-else-if="wrong.text" class="wrong" role="alert">{{ wrong.text }}</p>
        <SwapNotes
          v-if="swapping && reading"
          :name="swapping.name"
          :was="reading.written"
          :now="swapping.now"
          @put="putIn"
          @leave="swapping = undefined"
        />
        <BarTiles
          v-if="reading && !reading.problems.length"
          class="preview"
          :bars="reading.written"
          :read="async (text) => (await draft.propose({ text }))?.written"
          :change="(name, bars) => draft.rewrite(name, { text: written(bars) })"
        />
        <p v-else-if="!reading" class="hint">
          Choose a form on the left, or type the chords. They are read as you type.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.editor {
  padding: 1rem 1.25rem 2rem;
}

header {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  margin-bottom: 1rem;
  flex-wrap: wrap;
}

h1 {
  font-size: 2rem;
  flex: 1;
}

.columns {
  display: grid;
  grid-template-columns: minmax(20rem, 27rem) minmax(0, 1fr);
  gap: 2rem;
}

form {
  display: grid;
  gap: 0.75rem;
  align-content: start;
}

.columns :deep(.field) {
  grid-template-columns: 9rem minmax(0, 1fr);
}

.option {
  display: grid;
}

small {
  color: var(--soft);
  font-size: 0.9rem;
}

.text {
  display: grid;
  gap: 0.6rem;
  align-content: start;
}

.text label small {
  margin-left: 0.4rem;
}

.text :deep(#text) {
  font: 600 1.25rem/1.5 var(--font-display);
}

.spelling {
  justify-self: start;
}

.wrong {
  color: var(--danger);
}

.hint {
  color: var(--soft);
}

:deep(.p-inputnumber-input) {
  width: 6rem;
}

@media (max-width: 56.25em) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (max-width: 35em) {
  .columns :deep(.field) {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
