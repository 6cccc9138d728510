<script setup lang="ts">
/* A new lick: typed as text, kept from a line, or begun on tablature. */
import { reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import type { LickBody } from '../api/client'
import { readLick, useLickChanges, useLineChanges } from '../api/kept'
import { useCharts } from '../api/queries'
import FieldRow from '../shell/FieldRow.vue'
import FormDialog from '../shell/FormDialog.vue'
import SelectRow from '../shell/SelectRow.vue'
import LickSpelling from './LickSpelling.vue'
import { kindOf, kinds, overOf } from './kinds'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ from?: LickBody }>()
const changes = useLickChanges()
const lines = useLineChanges()
const charts = useCharts()
const router = useRouter()
const form = reactive({ title: '', tags: '', over: '7', text: "R/e b3/e 3/es 5/e R'/q b7/q" })
const trouble = ref('')
watch(
  open,
  (o) => {
    if (!o) return
    const l = props.from
    trouble.value = ''
    form.title = l?.title ?? ''
    form.tags = l?.tags.join(', ') ?? ''
    form.over = l ? kindOf(l) : '7'
  },
  { immediate: true },
)
async function save() {
  trouble.value = ''
  try {
    const kept = await changes.create.mutateAsync({
      title: form.title,
      ...overOf(form.over),
      notes: props.from?.notes ?? (await readLick(form.text)),
      home: props.from?.home,
      source: props.from?.source,
      heard: props.from?.heard,
      tags: form.tags.split(/[,\s]+/).filter(Boolean),
    })
    open.value = false
    void router.push({ name: 'lick', params: { id: kept.id } })
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
/* On tablature a lick is written as a short line over its chord, on the one of the chart opened last, and kept from there. */
async function tablature() {
  const tonic = charts.data.value?.[0]?.key.replace(/m$/, '') ?? 'C'
  const chord = tonic + overOf(form.over).chord
  const kept = await lines.create.mutateAsync({
    title: form.title.trim() || 'A new lick',
    key: /^m(?!aj)/.test(chord.slice(tonic.length)) ? `${tonic}m` : tonic,
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
    :header="from ? 'Keep as a lick' : 'A new lick'"
    action="Keep it"
    :trouble="trouble"
    @done="save"
  >
    <FieldRow label="Title" for="lick-title">
      <InputText id="lick-title" v-model="form.title" autofocus maxlength="120" />
    </FieldRow>
    <SelectRow id="lick-over" v-model="form.over" label="Over" :options="kinds" :disabled="!!from" />
    <FieldRow label="Tags" hint="with commas between" for="lick-tags">
      <InputText id="lick-tags" v-model="form.tags" maxlength="200" />
    </FieldRow>
    <FieldRow v-if="!from" label="Notes" hint="degree, slash, length" for="lick-text">
      <InputText id="lick-text" v-model="form.text" maxlength="4000" spellcheck="false" />
    </FieldRow>
    <LickSpelling v-if="!from" />
    <template v-if="!from" #beside>
      <Button type="button" label="Write it on tablature" variant="text" @click="tablature" />
    </template>
  </FormDialog>
</template>
