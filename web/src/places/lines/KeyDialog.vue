<script setup lang="ts">
/* What a line stands over: its key, its chords, its tempo and its feel. */
import { computed, reactive, ref, watch } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { askLine } from '../../api/kept'
import { useCatalogue } from '../../api/queries'
import FieldRow from '../../shell/FieldRow.vue'
import type { LineState } from './useLine'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ state: LineState }>()
const catalogue = useCatalogue()
const trouble = ref('')
const line = computed(() => props.state.line.value)
const wish = reactive({ key: '', text: '', tempo: 100, feel: '', way: 'shape' })
watch(open, (o) => {
  if (!o || !line.value) return
  trouble.value = ''
  const { key, text, tempo, feel } = line.value
  Object.assign(wish, { key, text, tempo, feel, way: 'shape' })
})
const minor = computed(() => (line.value?.key.endsWith('m') ? 'm' : ''))
const keys = computed(() =>
  [minor.value, minor.value ? '' : 'm'].flatMap((mode) =>
    (catalogue.data.value?.tonics ?? []).map((t) => ({
      value: t + mode,
      name: t.replace('b', '♭').replace('#', '♯') + (mode && ' minor'),
    })),
  ),
)
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
      key: stay ? wish.key : now.key,
      notes: respelled ? now.notes.map((n) => ({ ...n, note: '' })) : now.notes,
    })
    if (moves) study = await askLine.move(study.line, wish.key, way.value === 'shape')
    await props.state.take(Promise.resolve(study))
    open.value = false
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Key, chords and tempo" :style="{ width: 'min(44rem, 94vw)' }">
    <form class="form" @submit.prevent="change">
      <FieldRow label="Key" for="over-key">
        <Select
          v-model="wish.key"
          input-id="over-key"
          :pt="{ label: { autofocus: true } }"
          :options="keys"
          option-label="name"
          option-value="value"
          filter
        />
      </FieldRow>
      <FieldRow v-if="wish.key !== line?.key" label="Its notes and chords" for="over-way">
        <Select
          :model-value="way"
          input-id="over-way"
          :options="ways"
          option-label="name"
          option-value="value"
          @update:model-value="wish.way = $event"
        />
      </FieldRow>
      <FieldRow label="Chords" hint="as in a chart: | C7 | F7 |" for="over-text">
        <Textarea id="over-text" v-model="wish.text" rows="5" spellcheck="false" />
      </FieldRow>
      <FieldRow label="Tempo" hint="30 to 300 beats a minute" for="over-tempo">
        <InputNumber v-model="wish.tempo" input-id="over-tempo" :min="30" :max="300" show-buttons />
      </FieldRow>
      <FieldRow label="Feel" for="over-feel">
        <Select
          v-model="wish.feel"
          input-id="over-feel"
          :options="catalogue.data.value?.feels ?? []"
          option-label="name"
          option-value="id"
        />
      </FieldRow>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <p class="do"><Button type="submit" label="Change" /></p>
    </form>
  </Dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.75rem;
}

.form :deep(.p-select),
.form :deep(textarea) {
  width: 100%;
}

.form :deep(textarea) {
  font-family: var(--font-text);
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

.do {
  display: flex;
  justify-content: flex-end;
}
</style>
