<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import Textarea from 'primevue/textarea'
import { useQuery } from '@tanstack/vue-query'
import { answer, api } from '../../api/client'
import { chartBody, useCatalogue, useChartChanges } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import FormSheet from '../../sheet/FormSheet.vue'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import FieldRow from '../../shell/FieldRow.vue'
import { blank, fieldsOf, useDraft } from './useDraft'

const route = useRoute()
const router = useRouter()
const id = Number(route.params.id) || 0
useTitle(id ? 'Edit chart · Undaris' : 'New chart · Undaris')
const catalogue = useCatalogue()
const changes = useChartChanges()
const draft = useDraft(id ? String(id) : 'new')
const { body, reading, wrong, past, since } = draft

const saved = useQuery({
  queryKey: ['chart', id],
  queryFn: () => answer(api.GET('/api/charts/{id}', { params: { path: { id } } })),
  enabled: id > 0,
})
const clean = () => {
  const c = saved.data.value
  return c ? { title: c.title, key: c.key, feel: c.feel, tempo: c.tempo, beats: c.beats, text: c.text } : { ...blank }
}
const touched = computed(() => JSON.stringify(body.value) !== JSON.stringify(clean()))
const keeper = computed(() => saved.data.value && changes.keeper(id, saved.data.value.title))
watch(
  saved.data,
  (c) => {
    if (!c) return
    if (!body.value.text) body.value = clean()
    if (!touched.value || !since.value) since.value = c // what is typed from here on changes this version
  },
  { immediate: true, flush: 'post' },
)

const modes = [
  { text: 'major', minor: false },
  { text: 'minor', minor: true },
]
const tonic = computed(() => body.value.key.replace(/m$/, ''))
const minor = computed(() => body.value.key.endsWith('m'))
/** Another key moves what is written; with nothing written it is just chosen. */
async function setKey(t: string, m: boolean) {
  const key = t + (m ? 'm' : '')
  if (key === body.value.key) return
  if (body.value.text.trim()) await draft.rewrite({ key, from: body.value.key })
  else body.value.key = key
}
async function setForm(form: string) {
  const f = catalogue.data.value?.forms.find((x) => x.id === form)
  if (!f) return
  const key = f.minor === minor.value ? body.value.key : tonic.value + (f.minor ? 'm' : '')
  if ((await draft.rewrite({ form, key })) && !body.value.title.trim()) suggested.value = `${f.name} in ${key}`
}
const suggested = ref('')
function setFeel(feel: string) {
  draft.mark()
  const f = catalogue.data.value?.feels.find((x) => x.id === feel)
  body.value = { ...body.value, feel, tempo: f?.tempo ?? body.value.tempo }
}
const turnarounds = computed(() => catalogue.data.value?.turnarounds.filter((t) => t.minor === minor.value) ?? [])
const forms = computed(
  () => catalogue.data.value?.forms.map((f) => ({ ...f, name: f.name.replaceAll('♭', 'b') })) ?? [],
)

const field = ref<{ $el: HTMLTextAreaElement }>()
/** Selects the place in the text that a problem is about. */
function show(offset: number, length: number) {
  const el = field.value?.$el
  const at = (n: number) => [...body.value.text].slice(0, n).join('').length
  el?.focus()
  el?.setSelectionRange(at(offset), at(offset + length))
}

async function save() {
  const send = { ...body.value, title: body.value.title.trim() || suggested.value }
  try {
    let made = id
    if (keeper.value && since.value) {
      keeper.value.at(since.value)
      const { kept, theirs } = await keeper.value.save(send)
      await changes.fresh()
      since.value = kept
      if (theirs) {
        draft.mark()
        body.value = chartBody(kept)
        return
      }
    } else made = (await changes.create.mutateAsync(send)).id
    body.value = id ? send : { ...blank }
    await router.push({ name: 'bench', params: { id: made } })
    if (id) {
      localStorage.removeItem(`undaris-draft-${id}`)
      localStorage.removeItem(`undaris-draft-${id}-since`)
    }
  } catch (e) {
    wrong.value = fieldsOf(e)
  }
}
const discard = () => {
  draft.mark()
  body.value = clean()
  since.value = saved.data.value
}
</script>

<template>
  <EmptyPlace v-if="id && saved.error.value" title="No such chart" :text="saved.error.value.message">
    <Button as="router-link" :to="{ name: 'charts' }" label="All charts" />
  </EmptyPlace>
  <main v-else class="editor">
    <header>
      <h1>{{ id ? 'Edit chart' : 'New chart' }}</h1>
      <Button v-if="past.length" label="Undo" icon="pi pi-undo" variant="text" @click="draft.undo" />
      <Button v-if="touched && id" label="As saved" variant="text" @click="discard" />
      <Button label="Cancel" variant="outlined" @click="router.back()" />
      <Button
        :label="id ? 'Save and play' : 'Make chart'"
        :disabled="!reading || reading.problems.length > 0"
        @click="save"
      />
    </header>
    <p v-if="wrong.all" class="wrong" role="alert">{{ wrong.all }}</p>
    <div class="columns">
      <form @submit.prevent="save">
        <FieldRow label="Title" for="title" :wrong="wrong.title">
          <InputText
            id="title"
            v-model="body.title"
            maxlength="120"
            :placeholder="suggested || 'what the band calls it'"
            fluid
            @focus="draft.mark"
          />
        </FieldRow>
        <FieldRow label="Key" for="key" :wrong="wrong.key">
          <div class="row">
            <Select
              input-id="key"
              :model-value="tonic"
              :options="catalogue.data.value?.tonics ?? []"
              aria-label="tonic"
              @update:model-value="(t) => setKey(t, minor)"
            >
              <template #value="{ value }"><MusicText :text="value ?? ''" /></template>
              <template #option="{ option }"><MusicText :text="option" /></template>
            </Select>
            <SelectButton
              :model-value="minor"
              :options="modes"
              option-label="text"
              option-value="minor"
              :allow-empty="false"
              aria-label="mode"
              @update:model-value="(m) => setKey(tonic, m)"
            />
          </div>
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
                ><MusicText :text="option.name" /><small>{{ option.about }}</small></span
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
            @update:model-value="(t) => draft.rewrite({ turnaround: t })"
          >
            <template #option="{ option }">
              <span class="option"
                >{{ option.name }}<small><MusicText :text="option.text" /></small
              ></span>
            </template>
          </Select>
        </FieldRow>
        <FieldRow label="Feel" for="feel" :wrong="wrong.feel">
          <Select
            input-id="feel"
            :model-value="body.feel"
            :options="catalogue.data.value?.feels ?? []"
            option-label="name"
            option-value="id"
            @update:model-value="setFeel"
          />
        </FieldRow>
        <FieldRow label="Tempo" for="tempo" hint="beats a minute" :wrong="wrong.tempo">
          <InputNumber v-model="body.tempo" input-id="tempo" :invalid="!!wrong.tempo" @focus="draft.mark" />
        </FieldRow>
        <FieldRow label="Beats in a bar" for="beats" :wrong="wrong.beats">
          <InputNumber v-model="body.beats" input-id="beats" :invalid="!!wrong.beats" @focus="draft.mark" />
        </FieldRow>
      </form>
      <section class="text" aria-label="the chords">
        <label for="text"
          >Chords <small>bars between lines |, several chords in a bar, % for the bar again, numerals too</small></label
        >
        <Textarea
          id="text"
          ref="field"
          v-model="body.text"
          rows="6"
          spellcheck="false"
          autocomplete="off"
          placeholder="| C7 | F7 | C7 | % |"
          :invalid="!!reading?.problems.length || !!wrong.text"
          fluid
          @focus="draft.mark"
          @change="draft.mark"
        />
        <Button
          v-if="reading?.asH"
          label="Read H as B, and B as B♭"
          variant="outlined"
          size="small"
          @click="(draft.mark(), (draft.body.value = { ...draft.body.value, text: reading.asH! }))"
        />
        <ul v-if="reading?.problems.length" class="problems" role="alert">
          <li v-for="p in reading.problems.slice(0, 6)" :key="p.offset + p.message">
            <button type="button" title="show it in the text" @click="show(p.offset, p.length)">{{ p.message }}</button>
            <Button
              v-if="p.nearest"
              size="small"
              variant="outlined"
              :label="p.nearest === '%' ? 'Repeat the bar before' : `Write ${p.nearest}`"
              @click="draft.mend(p.offset, p.length, p.nearest)"
            />
          </li>
        </ul>
        <p v-else-if="wrong.text" class="wrong" role="alert">{{ wrong.text }}</p>
        <FormSheet
          v-if="reading && !reading.problems.length"
          class="preview"
          :bars="reading.bars"
          :chords="reading.chords"
          :beats="body.beats"
        />
        <p v-else-if="!reading" class="hint">
          Choose a form on the left, or type the chords. They are read as you type.
        </p>
      </section>
    </div>
  </main>
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

.row {
  display: flex;
  gap: 0.5rem;
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

.text :deep(textarea) {
  font: 600 1.25rem/1.5 var(--font-display);
}

.problems {
  display: grid;
  gap: 0.4rem;
}

.problems li {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  border-left: 4px solid var(--danger);
  padding-left: 0.6rem;
}

.problems li button:first-child {
  border: 0;
  background: none;
  color: var(--danger);
  text-align: left;
  cursor: pointer;
  padding: 0.3rem 0;
}

.wrong {
  color: var(--danger);
}

.preview {
  max-height: 26rem;
}

.hint {
  color: var(--soft);
}

:deep(.p-inputnumber-input) {
  width: 6rem;
}

@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
