<script setup lang="ts">
/* A lick through the changes, or on chosen bars and led into; what may lead into the note in hand. */
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import type { Fixes, LineNote } from '../../api/client'
import { askLine, useLicks } from '../../api/kept'
import { useCatalogue } from '../../api/queries'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import TickBox from '../../shell/TickBox.vue'
import { around } from '../../document/notes'
import FieldLine from './FieldLine.vue'
import FixList from './FixList.vue'
import SelectLine from './SelectLine.vue'
import { lands } from '../../making/kinds'
import { readBars } from './bars'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; bar: number; bars: number; note?: LineNote }>()
const licks = useLicks()
const catalogue = useCatalogue()
const lick = reactive({ id: 0, where: 'through' as 'through' | 'bars', follow: true, shape: false, join: 'none' })
const wheres = [
  { id: 'through' as const, name: 'every change' },
  { id: 'bars' as const, name: 'bars' },
]
/* The bar in hand, until others are written. */
const written = ref<string>()
const on = computed({ get: () => written.value ?? String(props.bar), set: (text) => (written.value = text) })
const asked = computed(() => readBars(on.value, props.bars))
const shelf = computed(() => (licks.data.value ?? []).map((l) => ({ id: l.id, name: l.title })))
const chosen = computed(() => lick.id || (licks.data.value?.[0]?.id ?? 0))
/* A lick of a bar starts where it starts; a longer one is led to the next change, unless it is said otherwise. */
const wanted = ref<boolean>()
const land = computed({
  get: () => wanted.value ?? lands(licks.data.value?.find((l) => l.id === chosen.value)),
  set: (is) => (wanted.value = is),
})
const joins = computed(() => [{ id: 'none', name: 'not led into' }, ...(catalogue.data.value?.connectors ?? [])])
function put() {
  const line = props.state.line.value
  if (!line || !chosen.value) return
  const where =
    lick.where === 'bars'
      ? { bars: asked.value.bars, join: lick.join === 'none' ? '' : lick.join }
      : { land: land.value, shape: lick.shape }
  void props.state.take(askLine.lick({ line, lick: chosen.value, follow: lick.follow, ...where }))
}
/* What may lead into the note in hand. */
const leads = shallowRef<{ fixes: Fixes; at: number }>()
async function lead() {
  const line = props.state.line.value
  const note = props.note
  if (!line || !note?.id) return
  try {
    leads.value = { fixes: await askLine.lead(around(line, note.start), note.id), at: note.start }
  } catch (e) {
    props.state.refuse(e)
  }
}
watch(
  () => [props.state.line.value, props.note?.id],
  () => (leads.value = undefined),
)
</script>

<template>
  <div class="form">
    <SelectLine
      id="work-lick"
      :model-value="chosen"
      label="Lick"
      :options="shelf"
      filter
      @update:model-value="lick.id = $event!"
    />
    <FieldLine label="Where">
      <SegmentedChoice v-model="lick.where" :options="wheres" label="where" />
    </FieldLine>
    <TickBox v-if="lick.where === 'through'" v-model="land">each version lands on the next change</TickBox>
    <TickBox v-if="lick.where === 'through'" v-model="lick.shape">the same shape, along the neck</TickBox>
    <template v-else>
      <FieldLine label="Bars" for="lick-bars">
        <InputText
          id="lick-bars"
          v-model="on"
          size="small"
          maxlength="200"
          :invalid="!!asked.said"
          placeholder="1 5 9-10"
        />
      </FieldLine>
      <p v-if="asked.said" class="hint" role="status">{{ asked.said }}</p>
      <SelectLine id="lick-join" v-model="lick.join" label="Led into" :options="joins" />
    </template>
    <TickBox v-model="lick.follow">degrees follow the chord (3 becomes ♭3)</TickBox>
    <p class="do">
      <Button label="Put it in" :disabled="lick.where === 'bars' && !asked.bars.length" @click="put" />
      <Button v-if="note" label="Lead into this note" variant="outlined" @click="lead" />
    </p>
    <FixList v-if="leads" :state="state" :fixes="leads.fixes" :at="leads.at" />
  </div>
</template>
