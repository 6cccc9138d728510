<script setup lang="ts">
/* How a chart is played: its feel, its tempo, its swing and its metre. */
import { maxSwing, minSwing } from '../../api/facts'
import { computed } from 'vue'
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import type { ChartBody } from '../../api/client'
import { useCatalogue } from '../../api/queries'
import FieldRow from '../../shell/FieldRow.vue'

const { body } = defineProps<{ body: ChartBody; wrong: Partial<Record<string, string>> }>()
const emit = defineEmits<{
  change: [name: string, part: Partial<ChartBody>]
  /** a letter at a time */
  typed: [name: string, part: Partial<ChartBody>]
}>()
const catalogue = useCatalogue()
const intro = computed(() => catalogue.data.value?.intros.find((i) => i.id === (body.intro || 'none')))
const ending = computed(() => catalogue.data.value?.endings.find((e) => e.id === (body.ending || 'held')))
const reading = computed(() => catalogue.data.value?.readings.find((r) => r.id === (body.reading || 'concert')))
function setFeel(feel: string) {
  const f = catalogue.data.value?.feels.find((x) => x.id === feel)
  emit('change', 'feel', { feel, tempo: f?.tempo ?? body.tempo })
}
</script>

<template>
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
    <InputNumber
      :model-value="body.tempo"
      input-id="tempo"
      :invalid="!!wrong.tempo"
      @update:model-value="(tempo) => emit('typed', 'tempo', { tempo: tempo ?? 0 })"
    />
  </FieldRow>
  <FieldRow label="Swing" for="swing" :hint="`${minSwing} to ${maxSwing} percent`" :wrong="wrong.swing">
    <InputNumber
      :model-value="body.swing || null"
      input-id="swing"
      class="swing"
      title="where the second eighth falls in its beat"
      suffix=" %"
      placeholder="follows the tempo"
      :invalid="!!wrong.swing"
      @update:model-value="(swing) => emit('typed', 'swing', { swing: swing ?? 0 })"
    />
  </FieldRow>
  <FieldRow label="Intro" for="intro" :hint="intro?.about" :wrong="wrong.intro">
    <Select
      input-id="intro"
      :model-value="body.intro || 'none'"
      :options="catalogue.data.value?.intros ?? []"
      option-label="name"
      option-value="id"
      @update:model-value="(intro) => emit('change', 'intro', { intro: intro === 'none' ? '' : intro })"
    />
  </FieldRow>
  <FieldRow label="Ending" for="ending" :hint="ending?.about" :wrong="wrong.ending">
    <Select
      input-id="ending"
      :model-value="body.ending || 'held'"
      :options="catalogue.data.value?.endings ?? []"
      option-label="name"
      option-value="id"
      @update:model-value="(ending) => emit('change', 'ending', { ending })"
    />
  </FieldRow>
  <FieldRow label="Read in" for="reading" :hint="reading?.about" :wrong="wrong.reading">
    <Select
      input-id="reading"
      :model-value="body.reading || 'concert'"
      :options="catalogue.data.value?.readings ?? []"
      option-label="name"
      option-value="id"
      @update:model-value="(r) => emit('change', 'the pitch it is read in', { reading: r === 'concert' ? '' : r })"
    />
  </FieldRow>
  <FieldRow label="Beats in a bar" for="beats" :wrong="wrong.beats">
    <InputNumber
      :model-value="body.beats"
      input-id="beats"
      :invalid="!!wrong.beats"
      @update:model-value="(beats) => emit('typed', 'metre', { beats: beats ?? 0 })"
    />
  </FieldRow>
</template>

<style scoped>
.swing :deep(input) {
  width: 11.5rem;
}
</style>
