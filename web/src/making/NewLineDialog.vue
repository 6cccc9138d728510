<script setup lang="ts">
/* What a new line is played over, where on the neck, and how it begins. */
import { readFrets, spanOf } from '../neck/region'
import { engrave } from '../music/text'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import InputText from 'primevue/inputtext'
import { answer, api, type LineBody } from '../api/client'
import { askLine, useLicks, useLineChanges } from '../api/kept'
import { readChart, useCatalogue, useCharts } from '../api/queries'
import FieldRow from '../shell/FieldRow.vue'
import { lineOf } from '../document/study'
import FormDialog from '../shell/FormDialog.vue'
import SelectRow from '../shell/SelectRow.vue'
import { lands } from './kinds'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ withLick?: number; of?: number }>()
const charts = useCharts()
const catalogue = useCatalogue()
const licks = useLicks()
const changes = useLineChanges()
const router = useRouter()
const wish = reactive({
  over: props.of ? `chart ${props.of}` : '',
  key: 'C',
  frets: '',
  start: props.of ? 'empty' : 'write',
  lick: 0,
  way: 'place',
  title: '',
})
const trouble = ref('')
const sources = computed(() => [
  ...(charts.data.value ?? []).map((c) => ({ value: `chart ${c.id}`, name: c.title })),
  ...(catalogue.data.value?.forms ?? []).map((f) => ({ value: `form ${f.id}`, name: `${f.name} (form)` })),
])
const over = computed(() => wish.over || sources.value[0]?.value || '')
const chart = computed(() => charts.data.value?.find((c) => over.value === `chart ${c.id}`))
const form = computed(() => catalogue.data.value?.forms.find((f) => over.value === `form ${f.id}`))
const keys = computed(() => (catalogue.data.value?.tonics ?? []).map((t) => ({ name: engrave(t), value: t })))
const tonic = computed(() => chart.value?.key.replace(/m$/, '') ?? wish.key)
watch(chart, (c) => c && (wish.key = c.key.replace(/m$/, '')), { immediate: true })
const windows = ref<{ name: string; value: string }[]>([])
watch(
  [() => wish.key, open],
  async () => {
    if (!open.value) return
    const list = await answer(api.GET('/api/positions', { params: { query: { key: wish.key || tonic.value } } }))
    windows.value = list.map((p) => ({ name: `${p.low} to ${p.high}`, value: spanOf(p) }))
    if (!windows.value.some((w) => w.value === wish.frets))
      wish.frets = (windows.value.find((w) => (readFrets(w.value)?.low ?? 0) >= 5) ?? windows.value[0])?.value ?? ''
  },
  { immediate: true },
)
watch(open, (o) => o && props.withLick && ((wish.start = 'lick'), (wish.lick = props.withLick)))
const starts = [
  { value: 'write', name: 'have one written' },
  { value: 'lick', name: 'a lick through the changes' },
  { value: 'drill', name: 'an exercise' },
  { value: 'empty', name: 'empty bars' },
]
const ways = [
  { value: 'place', name: 'in these frets, the nearest notes' },
  { value: 'shape', name: 'the same shape, along the neck' },
]
const shelf = computed(() => (licks.data.value ?? []).map((l) => ({ name: l.title, value: l.id })))
const lick = computed(() => wish.lick || (licks.data.value?.[0]?.id ?? 0))

async function make() {
  trouble.value = ''
  try {
    const window = readFrets(wish.frets)
    const c = chart.value && (await readChart(chart.value.id))
    const minor = c ? c.key.endsWith('m') : !!form.value?.minor
    const key = `${wish.key}${minor ? 'm' : ''}`
    let text = form.value?.text ?? c?.text ?? ''
    if (c && c.key !== key)
      text = (await answer(api.POST('/api/readings', { body: { text, from: c.key, key, beats: c.beats } }))).text
    const feel = c?.feel ?? 'shuffle'
    const name = c?.title ?? form.value?.name ?? 'Line'
    const line: LineBody = {
      title: wish.title.trim() || `${name} in ${engrave(key)}`,
      key,
      feel,
      tempo: c?.tempo ?? 96,
      beats: c?.beats ?? 4,
      text,
      palette: minor ? 'minor-pentatonic' : 'composite',
      low: window?.low ?? 0,
      high: window?.high ?? 0,
      notes: [],
      locked: [],
    }
    const study = await {
      write: () =>
        askLine.write(line, {
          word: catalogue.data.value?.feels.find((f) => f.id === feel)?.word,
          rhythm: 'own',
          approach: true,
          seed: Math.ceil(Math.random() * 9999),
        }),
      lick: () =>
        askLine.lick({
          line,
          lick: lick.value,
          land: lands(licks.data.value?.find((l) => l.id === lick.value)),
          follow: true,
          shape: wish.way === 'shape',
        }),
      drill: () => askLine.drill(line, { drill: 'onward', pace: 'eighths' }),
      empty: () => askLine.study(line),
    }[wish.start as 'write']()
    const kept = await changes.create.mutateAsync(lineOf(study))
    open.value = false
    void router.push({ name: 'line', params: { id: kept.id } })
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <FormDialog v-model="open" header="A new line" action="Begin" :trouble="trouble" width="38rem" @done="make">
    <SelectRow
      id="line-over"
      :model-value="over"
      label="Over"
      :options="sources"
      filter
      first
      @update:model-value="wish.over = $event"
    />
    <SelectRow id="line-key" v-model="wish.key" label="Key" :options="keys" />
    <SelectRow id="line-frets" v-model="wish.frets" label="Frets" :options="windows" />
    <SelectRow id="line-start" v-model="wish.start" label="Begin with" :options="starts" />
    <SelectRow
      v-if="wish.start === 'lick'"
      id="line-lick"
      :model-value="lick"
      label="Lick"
      :options="shelf"
      filter
      @update:model-value="wish.lick = $event"
    />
    <SelectRow v-if="wish.start === 'lick'" id="line-way" v-model="wish.way" label="Each version" :options="ways" />
    <FieldRow label="Title" hint="may be left empty" for="line-title">
      <InputText id="line-title" v-model="wish.title" maxlength="120" />
    </FieldRow>
  </FormDialog>
</template>
