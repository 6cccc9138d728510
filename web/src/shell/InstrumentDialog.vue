<script setup lang="ts">
import { maxFrets, minFrets } from '../api/facts'
import { computed, reactive, ref, watch } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { Refused, type Player, type PlayerVersion } from '../api/client'
import { useCatalogue, usePlayer, useSavePlayer } from '../api/queries'
import FieldRow from './FieldRow.vue'
import KeptInstruments from './KeptInstruments.vue'
import ReachMeasure from './ReachMeasure.vue'
import RestFields from './RestFields.vue'

const open = defineModel<boolean>({ required: true })
const player = usePlayer()
const catalogue = useCatalogue()
const save = useSavePlayer()

const form = reactive<Player>({ tuning: '', frets: 22, scale: 648, capo: 0, left: false, comfort: 100, habit: 'stay' })
const wrong = ref<Record<string, string>>({})
/** Filled when opened; what arrives later does not overwrite what is being typed. */
const filled = ref(false)
let was: PlayerVersion
watch(
  [open, player.data],
  () => {
    if (!open.value) filled.value = false
    else if (player.data.value && !filled.value) {
      was = player.data.value
      Object.assign(form, { instruments: [], rests: undefined }, was)
      filled.value = true
      wrong.value = {}
    }
  },
  { immediate: true }, // it may be opened before it is there
)
const known = computed(() => [
  ...(catalogue.data.value?.tunings ?? []),
  { id: 'own', name: 'Another tuning', open: '', scale: 0, frets: 0 },
])
const tuning = computed({
  get: () => known.value.find((t) => t.open === form.tuning)?.id ?? 'own',
  set: (id) => {
    const t = known.value.find((k) => k.id === id)
    if (t?.open) Object.assign(form, { tuning: t.open, scale: t.scale, frets: t.frets })
    else form.tuning = ''
  },
})
async function keep() {
  try {
    await save.mutateAsync({ was, body: { ...form } })
    open.value = false
  } catch (e) {
    const refused = e as Refused
    wrong.value = Object.keys(refused.fields ?? {}).length ? refused.fields : { tuning: refused.message }
  }
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Instrument and hand" :style="{ width: 'min(38rem, 94vw)' }">
    <form v-if="filled" @submit.prevent="keep">
      <KeptInstruments :model-value="form" @update:model-value="Object.assign(form, $event)" />
      <FieldRow label="Tuning" for="tuning-known">
        <Select v-model="tuning" input-id="tuning-known" :options="known" option-label="name" option-value="id" />
      </FieldRow>
      <FieldRow label="Open strings" for="tuning" hint="low to high, with octaves" :wrong="wrong.tuning">
        <InputText id="tuning" v-model="form.tuning" :invalid="!!wrong.tuning" placeholder="E2,A2,D3,G3,B3,E4" />
      </FieldRow>
      <FieldRow label="Frets" for="frets" :hint="`${minFrets} to ${maxFrets}`" :wrong="wrong.frets">
        <InputNumber v-model="form.frets" input-id="frets" :invalid="!!wrong.frets" />
      </FieldRow>
      <FieldRow label="Scale length" for="scale" hint="mm, nut to bridge" :wrong="wrong.scale">
        <InputNumber v-model="form.scale" input-id="scale" :max-fraction-digits="1" :invalid="!!wrong.scale" />
      </FieldRow>
      <FieldRow label="Capo" for="capo" hint="fret, 0 for none" :wrong="wrong.capo">
        <InputNumber v-model="form.capo" input-id="capo" :invalid="!!wrong.capo" />
      </FieldRow>
      <FieldRow label="Plays" for="left">
        <SelectButton
          v-model="form.left"
          :options="[
            { text: 'right-handed', value: false },
            { text: 'left-handed', value: true },
          ]"
          option-label="text"
          option-value="value"
          :allow-empty="false"
        />
      </FieldRow>
      <FieldRow label="Comfortable reach" for="comfort" hint="mm, first to fourth finger" :wrong="wrong.comfort">
        <InputNumber v-model="form.comfort" input-id="comfort" :invalid="!!wrong.comfort" />
      </FieldRow>
      <ReachMeasure v-model="form.comfort" :neck="form" />
      <FieldRow label="When it is far" for="habit" :wrong="wrong.habit">
        <SelectButton
          v-model="form.habit"
          :options="[
            { text: 'stay and stretch', value: 'stay' },
            { text: 'shift the hand', value: 'shift' },
          ]"
          option-label="text"
          option-value="value"
          :allow-empty="false"
        />
      </FieldRow>
      <RestFields v-model="form.rests" :wrong="wrong.rests" />
      <footer>
        <Button type="button" label="Leave as it was" variant="text" @click="open = false" />
        <Button type="submit" label="Use this instrument" :loading="save.isPending.value" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.75rem;
}

:deep(.p-inputnumber-input) {
  width: 7rem;
}

footer {
  display: flex;
  justify-content: flex-end;
  gap: 0.5rem;
  margin-top: 0.5rem;
}
</style>
