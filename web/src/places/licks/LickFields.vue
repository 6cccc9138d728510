<script setup lang="ts">
/* What a lick is over, its tags, and its notes as text. */
import { computed } from 'vue'
import InputText from 'primevue/inputtext'
import FieldRow from '../../shell/FieldRow.vue'
import SelectRow from '../../shell/SelectRow.vue'
import LickSpelling from '../../making/LickSpelling.vue'
import { kindOf, kinds, overOf } from '../../making/kinds'
import type { useLickWork } from './useLickWork'

const props = defineProps<{ work: ReturnType<typeof useLickWork> }>()
const body = computed(() => props.work.body.value)
const over = computed({
  get: () => (body.value ? kindOf(body.value) : '7'),
  set: (kind) => props.work.change('what it is over', overOf(kind)),
})
const tags = computed(() => body.value?.tags.join(', ') ?? '')
const tag = (text: string) => props.work.change('tags', { tags: text.split(/[,\s]+/).filter(Boolean) })
</script>

<template>
  <section v-if="body" class="fields" aria-label="change the lick">
    <FieldRow
      label="Notes"
      :hint="work.text.value || work.wrong.value ? 'degree, slash, length' : 'its rhythm has no spelling as text'"
      for="lick-notes"
      :wrong="work.wrong.value"
    >
      <InputText
        id="lick-notes"
        :model-value="work.text.value"
        maxlength="4000"
        spellcheck="false"
        fluid
        @update:model-value="(t) => work.write(t ?? '')"
      />
    </FieldRow>
    <SelectRow id="lick-kind" v-model="over" label="Over" :options="kinds" />
    <FieldRow label="Tags" hint="with commas between" for="lick-tagged">
      <InputText
        id="lick-tagged"
        :model-value="tags"
        maxlength="200"
        @change="tag(($event.target as HTMLInputElement).value)"
      />
    </FieldRow>
    <FieldRow label="Remark" hint="for you" for="lick-remark">
      <InputText
        id="lick-remark"
        :model-value="body.remark ?? ''"
        maxlength="1000"
        @update:model-value="(remark) => work.change('the remark', { remark: remark ?? '' }, true)"
      />
    </FieldRow>
    <FieldRow label="Source" hint="where it is from" for="lick-source">
      <InputText
        id="lick-source"
        :model-value="body.source ?? ''"
        maxlength="200"
        @update:model-value="(source) => work.change('where it is from', { source: source ?? '' }, true)"
      />
    </FieldRow>
    <LickSpelling />
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 0.6rem;
  margin-bottom: 0.75rem;
}
</style>
