<script setup lang="ts">
/* A lick's name and tags; a new one is typed as text, or begun on tablature. */
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { answer, api, type Lick, type LickBody } from '../../api/client'
import { useLickChanges, useLineChanges } from '../../api/kept'
import FieldRow from '../../shell/FieldRow.vue'
import FormDialog from '../../shell/FormDialog.vue'
import SelectRow from '../../shell/SelectRow.vue'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ lick?: Lick; from?: LickBody }>()
const changes = useLickChanges()
const lines = useLineChanges()
const router = useRouter()
const kinds = [
  { value: '7', name: 'a dominant seventh' },
  { value: 'm7', name: 'a minor seventh' },
  { value: 'maj7', name: 'a major seventh' },
  { value: 'm7b5', name: 'a half-diminished' },
  { value: '', name: 'a major chord' },
  { value: 'm', name: 'a minor chord' },
  { value: 'key m', name: 'the key, minor' },
  { value: 'key', name: 'the key, major' },
]
const form = reactive({ title: '', tags: '', over: '7', text: "R/e b3/e 3/es 5/e R'/q b7/q" })
const trouble = ref('')
watch(
  open,
  (o) => {
    if (!o) return
    const l = props.lick ?? props.from
    trouble.value = ''
    form.title = l?.title ?? ''
    form.tags = l?.tags.join(', ') ?? ''
    form.over = l ? (l.ofKey ? `key ${l.chord}`.trim() : l.chord) : '7'
  },
  { immediate: true },
)
const given = computed(() => props.lick ?? props.from)
async function save() {
  trouble.value = ''
  try {
    const notes = given.value?.notes ?? (await answer(api.POST('/api/licks/read', { body: { text: form.text } })))
    const ofKey = form.over.startsWith('key')
    const body: LickBody = {
      title: form.title,
      chord: ofKey ? form.over.slice(4) : form.over,
      ofKey,
      notes,
      tags: form.tags.split(/[,\s]+/).filter(Boolean),
    }
    const kept = props.lick
      ? await changes.update.mutateAsync({ lick: props.lick, body })
      : await changes.create.mutateAsync(body)
    open.value = false
    if (!props.lick) void router.push({ name: 'lick', params: { id: kept.id } })
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
/* On tablature a lick is written as a short line over its chord, and kept from there. */
async function tablature() {
  const ofKey = form.over.startsWith('key')
  const chord = `C${ofKey ? form.over.slice(4) : form.over}`
  const kept = await lines.create.mutateAsync({
    title: form.title.trim() || 'A new lick',
    key: /^m(?!aj)/.test(chord.slice(1)) ? 'Cm' : 'C',
    feel: 'shuffle',
    tempo: 96,
    beats: 4,
    text: `| ${chord} | % |`,
    low: 7,
    high: 11,
    notes: [],
    locked: [],
  })
  open.value = false
  void router.push({ name: 'line', params: { id: kept.id } })
}
</script>

<template>
  <FormDialog
    v-model="open"
    :header="lick ? 'Change the lick' : from ? 'Keep as a lick' : 'A new lick'"
    :action="lick ? 'Save' : 'Keep it'"
    :trouble="trouble"
    @done="save"
  >
    <FieldRow label="Title" for="lick-title">
      <InputText id="lick-title" v-model="form.title" autofocus maxlength="120" />
    </FieldRow>
    <SelectRow id="lick-over" v-model="form.over" label="Over" :options="kinds" :disabled="!!given" />
    <FieldRow label="Tags" hint="with commas between" for="lick-tags">
      <InputText id="lick-tags" v-model="form.tags" maxlength="200" />
    </FieldRow>
    <FieldRow v-if="!given" label="Notes" hint="degree, slash, length" for="lick-text">
      <InputText id="lick-text" v-model="form.text" maxlength="4000" spellcheck="false" />
    </FieldRow>
    <details v-if="!given">
      <summary>How a lick is written</summary>
      <p>
        <b>R b3 3 11 5 b7</b> and the other degrees, <b>,</b> or <b>'</b> behind them for the octave below or above.
        Lengths: <b>w h q e s</b> from the whole note to the sixteenth, <b>t</b> and <b>T</b> thirds, a dot for half as
        much again. Then <b>h</b> hammer-on, <b>p</b> pull-off, <b>s</b> slide, <b>^1 ^2</b> bent by half steps,
        <b>^q</b> a curl, <b>_</b> released, <b>~</b> vibrato, <b>&gt;</b> accent. <b>3+5/e</b> sounds together,
        <b>-/q</b> rests, and what stands before <b>|</b> is a pickup.
      </p>
    </details>
    <template v-if="!given" #beside>
      <Button type="button" label="Write it on tablature" variant="text" @click="tablature" />
    </template>
  </FormDialog>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 2rem;
  color: var(--soft);
}
</style>
