<script setup lang="ts">
/* A file becomes a line; where it has no chords, a chart's are laid under it. */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useToast } from 'primevue/usetoast'
import { askLine, useLineChanges } from '../../api/kept'
import { useCharts } from '../../api/queries'
import { lineOf } from '../../document/study'
import FormDialog from '../../shell/FormDialog.vue'
import SelectRow from '../../shell/SelectRow.vue'

const open = defineModel<boolean>({ required: true })
const charts = useCharts()
const changes = useLineChanges()
const router = useRouter()
const toast = useToast()
const under = ref(0)
const choices = computed(() => [
  { name: 'stay without', value: 0 },
  ...(charts.data.value ?? []).map((c) => ({ name: `take those of ${c.title}`, value: c.id })),
])
const picker = ref<HTMLInputElement>()
const trouble = ref('')
async function bring(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  trouble.value = ''
  try {
    const study = await askLine.import(file, under.value || undefined)
    const kept = await changes.create.mutateAsync(lineOf(study))
    if (study.said.length)
      toast.add({
        severity: 'secondary',
        summary: `“${kept.title}” was read.`,
        detail: `${study.said.join('; ')}.`,
        life: 15000,
      })
    open.value = false
    void router.push({ name: 'line', params: { id: kept.id } })
  } catch (error) {
    open.value = true
    trouble.value = `${file.name}: ${error instanceof Error ? error.message : error}`
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    header="Bring in a file"
    action="Choose a file"
    :trouble="trouble"
    width="38rem"
    @done="picker?.click()"
  >
    <p class="about">
      MusicXML (.musicxml, .mxl, .xml), a MIDI file (.mid) or tablature as text (.txt). One voice of one guitar is read;
      what was guessed is marked, and what was left out is told.
    </p>
    <SelectRow id="import-under" v-model="under" label="Bars without chords" :options="choices" first />
  </FormDialog>
  <input
    ref="picker"
    class="hidden-text"
    type="file"
    accept=".musicxml,.mxl,.xml,.mid,.midi,.txt,.tab"
    aria-label="file to import"
    tabindex="-1"
    @change="bring"
  />
</template>

<style scoped>
.about {
  color: var(--soft);
}
</style>
