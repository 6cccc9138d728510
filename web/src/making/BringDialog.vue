<script setup lang="ts">
/* Files are brought in: what each was understood as is seen before anything is kept. */
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useQueryClient } from '@tanstack/vue-query'
import { useToast } from 'primevue/usetoast'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import type { Brought } from '../api/client'
import { useCharts } from '../api/queries'
import MusicText from '../music/MusicText.vue'
import { engrave } from '../music/text'
import StaffDrawing from '../notation/StaffDrawing.vue'
import FormSheet from '../sheet/FormSheet.vue'
import PressButton from '../shell/PressButton.vue'
import SelectRow from '../shell/SelectRow.vue'
import { useGrowing } from '../shell/useGrowing'
import TickBox from '../shell/TickBox.vue'
import MendText from './MendText.vue'
import OverSelect from './OverSelect.vue'
import SaidList from './SaidList.vue'
import { texts, type Kind } from './bringing'
import { penAt, useBring, type Item } from './useBring'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ as: Kind; /** what is brought in at once */ files?: File[] }>()
const text = computed(() => texts[props.as])
const charts = useCharts()
const under = ref(0)
const choices = computed(() => [
  { name: 'stay without', value: 0 },
  ...(charts.data.value ?? []).map((c) => ({ name: `take those of ${c.title}`, value: c.id })),
])
const bring = useBring(props.as, () => ({ chart: under.value || undefined }))
const { items, at, here, going, wanted } = bring
watch(open, (o) => o || bring.clear())
if (props.files) void bring.open(props.files)
watch(under, (chart) => items.value.forEach((_, i) => void bring.again(i, { chart: chart || undefined })))

const foot = useTemplateRef<HTMLElement>('foot')
const rows = useGrowing(items, foot, open)
const picker = ref<HTMLInputElement>()
function chosen(e: Event) {
  const input = e.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  if (!files.length) return
  open.value = true
  void bring.open(files)
}
const dropped = (e: DragEvent) => e.dataTransfer?.files.length && void bring.open([...e.dataTransfer.files])

/* Text that is pasted is a file without a name of its own. */
const pasted = (text: string) => {
  open.value = true
  return bring.open([new File([text], 'pasted.txt')])
}
function paste(e: ClipboardEvent) {
  const text = e.clipboardData?.getData('text/plain')
  if (!text?.trim() || (e.target as HTMLElement).closest('textarea, input')) return
  e.preventDefault()
  void pasted(text)
}

const about = ({ brought: b, trouble, file }: Item) => {
  if (!b || trouble) return trouble ? 'cannot be read' : file.name
  if (b.chart) return `${b.sheet!.bars.length} bars in ${engrave(b.chart.key)}, ${b.chart.tempo} a minute`
  if (b.line) return `${b.line.notes.length} notes in ${engrave(b.line.key)}, ${b.line.tempo} a minute`
  return b.licks!.length === 1 ? 'a lick' : `${b.licks!.length} licks`
}
const title = (item: Item) =>
  item.brought?.chart?.title ?? item.brought?.line?.title ?? item.brought?.licks?.[0]?.title ?? item.file.name
const parts = computed(() =>
  (here.value?.brought?.parts ?? []).map((p, i) => ({
    name: `${p.name || 'without a name'} (${p.notes} ${p.notes === 1 ? 'note' : 'notes'})`,
    value: i + 1,
  })),
)
const part = computed(() => (here.value?.brought?.parts ?? []).findIndex((p) => p.read) + 1)
/** What is pressed of what is said: its place is shown, in the drawing or in the text. */
const shown = ref<Brought['where'][number]>()
watch([at, () => here.value?.brought], () => (shown.value = undefined))
const isText = computed(() => /text|tablature/.test(here.value?.brought?.kind ?? ''))
const pen = computed(() => {
  const score = here.value?.brought?.score
  return score && shown.value?.bar ? penAt(score, shown.value.bar) : undefined
})
/** Repeats can be written out only where there are some. */
const repeats = computed(() => !!here.value?.brought?.order || !!here.value?.wish.out)

const router = useRouter()
const queries = useQueryClient()
const toast = useToast()
async function keep() {
  const kept = await bring.keepAll()
  await queries.invalidateQueries({ queryKey: [{ chart: 'charts', line: 'lines', licks: 'licks' }[props.as]] })
  const left = items.value.length
  const n = kept.reduce((sum, k) => sum + k.n, 0)
  if (n === 1 && !left) {
    open.value = false
    return void router.push({ name: kept[0]!.name, params: { id: kept[0]!.id } })
  }
  toast.add({
    severity: 'secondary',
    summary: left ? `${n} kept; ${left} ${left === 1 ? 'file is' : 'files are'} left.` : `${n} kept.`,
    life: 6000,
  })
  if (!left) open.value = false
}
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    :header="text.header"
    :style="{ width: items.length ? 'min(64rem, 96vw)' : 'min(40rem, 94vw)' }"
  >
    <div class="bring" @dragover.prevent @drop.prevent="dropped" @paste="paste">
      <p class="about">{{ text.about }} Nothing is kept before you say so.</p>
      <SelectRow
        v-if="as === 'line'"
        id="import-under"
        v-model="under"
        label="Bars without chords"
        :options="choices"
        first
      />
      <p v-if="going" class="going" role="status">
        <progress :value="going.done" :max="going.of" :aria-label="going.what" />
        {{ going.what }} {{ going.done }} of {{ going.of }}
        <Button label="Stop" size="small" variant="outlined" @click="bring.stop" />
      </p>
      <div v-if="items.length" class="found">
        <ol v-if="items.length > 1" aria-label="the files">
          <li v-for="(item, i) in rows" :key="i" :class="{ on: at === i }">
            <input
              type="checkbox"
              :checked="item.wanted"
              :disabled="!item.brought || !!item.trouble"
              :aria-label="`keep ${title(item)}`"
              @change="bring.want(i, ($event.target as HTMLInputElement).checked)"
            />
            <PressButton :aria-pressed="at === i" @click="at = i">
              <b>{{ title(item) }}</b>
              <small><MusicText :said="about(item)" /></small>
            </PressButton>
          </li>
          <li v-if="rows.length < items.length" ref="foot">{{ rows.length }} of {{ items.length }}</li>
        </ol>
        <section v-if="here" class="preview" aria-label="what the file was understood as">
          <MendText
            v-if="here.trouble || shown?.line"
            :file="here.file"
            :trouble="here.trouble"
            :chart="as === 'chart'"
            :line="shown?.line"
            @read="(text) => bring.mend(at, text)"
          />
          <template v-if="here.brought">
            <h2>
              {{ title(here) }} <small>{{ here.brought.kind }}, <MusicText :said="about(here)" /></small>
            </h2>
            <SelectRow
              v-if="parts.length > 1 && as !== 'chart'"
              id="import-part"
              :model-value="part"
              label="What is read"
              :options="parts"
              @update:model-value="(p) => bring.again(at, { part: p })"
            />
            <OverSelect
              v-if="here.brought.over?.length"
              :over="here.brought.over"
              @take="(over) => bring.again(at, { over })"
            />
            <TickBox
              v-if="as === 'chart' && repeats"
              :model-value="!!here.wish.out"
              @update:model-value="(out) => bring.again(at, { out })"
              >repeats written out</TickBox
            >
            <p v-if="here.brought.order" class="said">Played: {{ here.brought.order }}.</p>
            <SaidList :brought="here.brought" :text="isText" :shown="shown" @show="shown = $event" />
            <ul v-if="here.brought.licks && here.brought.licks.length > 1" class="licks" aria-label="the licks">
              <li v-for="(l, i) in here.brought.licks" :key="i">{{ l.title }}</li>
            </ul>
            <div v-if="!here.trouble" class="paper">
              <FormSheet
                v-if="here.brought.sheet"
                :bars="here.brought.sheet.bars"
                :chords="here.brought.sheet.chords"
                :pickup="here.brought.sheet.pickup"
                :at="shown?.bar ? { bar: shown.bar - 1, change: 0 } : undefined"
              />
              <StaffDrawing v-else-if="here.brought.score" :score="here.brought.score" :pen="pen" :fingers="false" />
            </div>
          </template>
        </section>
      </div>
      <p class="do">
        <Button
          :label="items.length ? 'Other files' : 'Choose files'"
          icon="pi pi-upload"
          :variant="items.length ? 'outlined' : undefined"
          :disabled="!!going"
          @click="picker?.click()"
        />
        <Button label="Paste text" icon="pi pi-clipboard" variant="outlined" :disabled="!!going" @click="pasted('')" />
        <Button
          v-if="items.length"
          :label="wanted.length > 1 ? `Keep ${wanted.length}` : 'Keep it'"
          :disabled="!!going || !wanted.length"
          @click="keep"
        />
      </p>
    </div>
  </Dialog>
  <input
    ref="picker"
    class="hidden-text"
    type="file"
    multiple
    :accept="text.accept"
    aria-label="file to import"
    tabindex="-1"
    @change="chosen"
  />
</template>

<style scoped>
.bring {
  display: grid;
  gap: 0.75rem;
}

.about {
  color: var(--soft);
}

.going,
.do {
  display: flex;
  gap: 0.75rem;
  align-items: center;
}

.do {
  justify-content: flex-end;
}

.going progress {
  flex: 1;
}

.found {
  display: grid;
  grid-template-columns: minmax(0, auto) minmax(0, 1fr);
  gap: 1rem;
}

ol {
  width: 18rem;
  max-height: 50vh;
  overflow-y: auto;
  margin: 0;
  padding: 0;
  list-style: none;
}

ol li {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  content-visibility: auto;
  contain-intrinsic-height: auto 3rem;
}

ol li.on {
  background: var(--lit);
}

ol input {
  width: 1.5rem;
  height: 1.5rem;
  flex: none;
  accent-color: var(--ink);
}

ol button {
  flex: 1;
  display: grid;
  min-height: var(--target);
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}

ol b {
  overflow: hidden;
  text-overflow: ellipsis;
}

small {
  color: var(--soft);
  font-weight: 400;
}

.preview {
  grid-column: -2;
  display: grid;
  gap: 0.6rem;
  align-content: start;
  min-width: 0;
}

h2 {
  font-size: var(--text-l);
}

h2 small {
  font: 1rem var(--font-text);
}

.said {
  color: var(--soft);
  max-height: 8rem;
  overflow-y: auto;
}

ul {
  margin: 0;
  padding-left: 1.1rem;
}

.licks {
  columns: 3 9rem;
}

.paper {
  max-height: 45vh;
  overflow: auto;
  background: var(--raised);
  padding: 0.5rem;
}

@media (max-width: 50em) {
  .found {
    grid-template-columns: minmax(0, 1fr);
  }

  ol {
    width: auto;
    max-height: 12rem;
  }

  .preview {
    grid-column: 1;
  }
}
</style>
