<script setup lang="ts">
/* What a line stands over: its key, its chords, its tempo and its feel. */
import { maxTempo, minTempo } from '../../api/facts'
import { engrave } from '../../music/text'
import { computed, reactive, ref, watch } from 'vue'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Textarea from 'primevue/textarea'
import { askLine } from '../../api/kept'
import { lineOf } from '../../document/study'
import { useCatalogue } from '../../api/queries'
import FieldRow from '../../shell/FieldRow.vue'
import FormDialog from '../../shell/FormDialog.vue'
import SelectRow from '../../shell/SelectRow.vue'
import type { LineState } from './useLine'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ state: LineState }>()
const catalogue = useCatalogue()
const trouble = ref('')
const line = computed(() => props.state.line.value)
const wish = reactive({ key: '', text: '', tempo: 100, feel: '', way: 'shape', remark: '', source: '' })
watch(open, (o) => {
  if (!o || !line.value) return
  trouble.value = ''
  const { key, text, tempo, feel, remark = '', source = '' } = line.value
  Object.assign(wish, { key, text, tempo, feel, way: 'shape', remark, source })
})
const minor = computed(() => (line.value?.key.endsWith('m') ? 'm' : ''))
const keys = computed(() =>
  [minor.value, minor.value ? '' : 'm'].flatMap((mode) =>
    (catalogue.data.value?.tonics ?? []).map((t) => ({
      value: t + mode,
      name: engrave(t) + (mode && ' minor'),
    })),
  ),
)
const feels = computed(() => (catalogue.data.value?.feels ?? []).map((f) => ({ name: f.name, value: f.id })))
const otherMode = computed(() => wish.key.endsWith('m') !== !!minor.value)
const ways = computed(() => [
  ...(otherMode.value
    ? []
    : [
        { value: 'shape', name: 'all of it moves, the same shape up or down the neck' },
        { value: 'place', name: 'all of it moves, played where the hand is' },
      ]),
  { value: 'stay', name: 'nothing moves, it is only read in that key' },
])
const way = computed(() => (otherMode.value ? 'stay' : wish.way))

async function change() {
  const now = line.value
  if (!now) return
  trouble.value = ''
  try {
    const rekeyed = wish.key !== now.key
    const stay = rekeyed && way.value === 'stay'
    const moves = rekeyed && !stay
    // Names of notes follow the key and the chords.
    const respelled = stay || wish.text.trim() !== now.text.trim()
    let study = await askLine.study({
      ...now,
      text: wish.text,
      tempo: wish.tempo,
      feel: wish.feel,
      remark: wish.remark,
      source: wish.source,
      key: stay ? wish.key : now.key,
      notes: respelled ? now.notes.map((n) => ({ ...n, note: '' })) : now.notes,
    })
    if (moves) study = await askLine.move(lineOf(study), wish.key, way.value === 'shape')
    await props.state.take(Promise.resolve(study))
    open.value = false
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    header="Key, chords and tempo"
    action="Change"
    :trouble="trouble"
    width="44rem"
    @done="change"
  >
    <SelectRow id="over-key" v-model="wish.key" label="Key" :options="keys" filter first />
    <SelectRow
      v-if="wish.key !== line?.key"
      id="over-way"
      :model-value="way"
      label="Its notes and chords"
      :options="ways"
      @update:model-value="wish.way = $event"
    />
    <FieldRow label="Chords" hint="as in a chart: | C7 | F7 |" for="over-text">
      <Textarea id="over-text" v-model="wish.text" rows="5" spellcheck="false" />
    </FieldRow>
    <FieldRow label="Tempo" hint="30 to 300 beats a minute" for="over-tempo">
      <InputNumber v-model="wish.tempo" input-id="over-tempo" :min="minTempo" :max="maxTempo" show-buttons />
    </FieldRow>
    <SelectRow id="over-feel" v-model="wish.feel" label="Feel" :options="feels" />
    <FieldRow label="Remark" hint="for you; it stays here when the line leaves as a file" for="over-remark">
      <Textarea id="over-remark" v-model="wish.remark" rows="2" maxlength="1000" />
    </FieldRow>
    <FieldRow label="Source" hint="where it is from" for="over-source">
      <InputText id="over-source" v-model="wish.source" maxlength="200" />
    </FieldRow>
  </FormDialog>
</template>
