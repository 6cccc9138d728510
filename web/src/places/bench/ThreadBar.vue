<script setup lang="ts">
import { engrave } from '../../music/text'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import ToggleSwitch from 'primevue/toggleswitch'
import { useToast } from 'primevue/usetoast'
import type { Role } from '../../api/client'
import { everyString, stringSets, useDivision } from '../../api/division'
import { useCatalogue } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import FieldRow from '../../shell/FieldRow.vue'
import { useCommand } from '../../shell/useCommands'
import type { Bench } from './useBench'
import type { PlanState } from './usePlan'
import { later } from '../../shell/later'
import { Dialog, Select } from '../../shell/parts'

const ThreadList = later(() => import('./ThreadList.vue'))

/* The thread in words, and what it is made from. */
const props = defineProps<{ bench: Bench; plan: PlanState; heard: boolean }>()
const emit = defineEmits<{ hear: [] }>()
const catalogue = useCatalogue()
const toast = useToast()
const back = useCommand('takeBack')
const choosing = ref(false)
const listing = ref(false)
const now = computed(() => props.plan.plan.value)
const thread = computed(() => props.bench.thread.value)
const mode = computed(() => now.value.thread || 'guide-tones')
const modeName = computed(() => catalogue.data.value?.threads.find((t) => t.id === mode.value)?.name ?? '')

const division = useDivision(
  computed(() => props.bench.data.value?.chart.key),
  choosing,
)
const strings = computed(() => stringSets(division.data.value?.strings, props.plan.plan.value.strings))
const onStrings = (set: string) => props.plan.set({ strings: set === everyString ? undefined : set })
const orders = [
  { text: 'third, seventh, root, fifth', value: 'third,seventh,root,fifth' },
  { text: 'seventh, third, root, fifth', value: 'seventh,third,root,fifth' },
  { text: 'root, third, fifth, seventh', value: 'root,third,fifth,seventh' },
  { text: 'fifth, third, seventh, root', value: 'fifth,third,seventh,root' },
]
const numerals = computed(() => [
  ...new Set(props.bench.data.value?.bars.flatMap((b) => b.changes.map((c) => c.numeral))),
])
const roles = [
  { text: 'R', value: 'root' },
  { text: '3', value: 'third' },
  { text: '5', value: 'fifth' },
  { text: '7', value: 'seventh' },
  { text: '9 11 13', value: 'extension' },
]
const allowed = (n: string) => now.value.allowed?.[n] ?? []
const allow = (n: string, chosen: string[] | null) =>
  props.plan.set({ allowed: { ...now.value.allowed, [n]: chosen ?? [] } })

const turnarounds = computed(() => {
  const minor = props.bench.data.value?.chart.key.endsWith('m')
  return [
    { id: 'band', name: 'what the band plays', text: '' },
    ...(catalogue.data.value?.turnarounds.filter((t) => t.minor === minor && !t.ending) ?? []),
  ]
})
const imagined = computed(() => turnarounds.value.find((t) => t.text === now.value.imagined?.text)?.id ?? 'band')
const imagine = (id: string) => {
  const t = turnarounds.value.find((x) => x.id === id)
  const all = props.bench.data.value?.bars ?? []
  const bars = all.length
  if (t?.text && (bars < 2 || all.slice(-2).some((b) => b.beats !== 4))) {
    toast.add({
      severity: 'warn',
      summary: 'Not here',
      detail: 'The turnarounds fill the last two bars, in four beats.',
      life: 6000,
    })
    return
  }
  props.plan.set({ imagined: t?.text ? { bar: bars - 1, text: t.text } : undefined })
}
</script>

<template>
  <header class="thread">
    <h2>Wave</h2>
    <p v-if="thread?.problem" class="problem" role="alert">
      {{ thread.problem.message }}
      <Button
        v-if="thread.problem.pinned"
        label="Drop that target"
        size="small"
        variant="outlined"
        @click="plan.pin(thread.problem.step)"
      />
      <Button
        v-else-if="now.strings"
        label="Use all strings"
        size="small"
        variant="outlined"
        @click="plan.set({ strings: undefined })"
      />
    </p>
    <p v-else class="about">
      <span
        >{{ modeName
        }}<template v-if="bench.choruses.value > 1">
          · chorus {{ bench.chorus.value + 1 }} of {{ bench.choruses.value }}</template
        ></span
      >
      · {{ thread?.halfSteps }} half steps, {{ Math.round((thread?.mm ?? 0) / 10) }} cm of neck
    </p>
    <span class="do">
      <Button
        v-if="plan.canUndo.value"
        icon="pi pi-undo"
        size="small"
        variant="text"
        :aria-label="`undo ${plan.undoName.value}`"
        v-bind="back"
      />
      <Button
        label="Hear"
        :icon="heard ? 'pi pi-check' : 'pi pi-volume-up'"
        size="small"
        variant="text"
        :aria-pressed="heard"
        :title="heard ? 'the band plays without the thread' : 'hear the thread over the band'"
        @click="emit('hear')"
      />
      <Button label="List" size="small" variant="text" @click="listing = true" />
      <Button label="Targets" size="small" variant="outlined" @click="choosing = true" />
    </span>
    <ThreadList v-model="listing" :bench="bench" />
    <Dialog
      v-model:visible="choosing"
      modal
      header="Targets of the thread"
      :style="{ width: 'min(42rem, 94vw)' }"
      dismissable-mask
    >
      <div class="fields">
        <FieldRow label="The thread takes" for="thread-mode">
          <Select
            :model-value="mode"
            input-id="thread-mode"
            :options="catalogue.data.value?.threads ?? []"
            option-label="name"
            option-value="id"
            @update:model-value="(thread) => plan.set({ thread })"
          />
        </FieldRow>
        <FieldRow label="On strings" for="thread-strings">
          <Select
            :model-value="now.strings || everyString"
            input-id="thread-strings"
            :options="strings"
            option-label="name"
            option-value="id"
            @update:model-value="onStrings"
          />
        </FieldRow>
        <FieldRow
          v-for="n in numerals"
          :key="n"
          :label="`Only on ${engrave(n)}`"
          for=""
          hint="nothing chosen: as above"
        >
          <SelectButton
            :model-value="allowed(n)"
            :options="roles"
            option-label="text"
            option-value="value"
            multiple
            :aria-label="`degrees allowed on ${n}`"
            @update:model-value="(v) => allow(n, v)"
          />
        </FieldRow>
        <FieldRow label="Targets in the order" for="thread-order" hint="of crossings, and of a ladder">
          <Select
            :model-value="now.targets?.join() || orders[0]!.value"
            input-id="thread-order"
            :options="orders"
            option-label="text"
            option-value="value"
            @update:model-value="(order: string) => plan.set({ targets: order.split(',') as Role[] })"
          />
        </FieldRow>
        <FieldRow label="The nearest first" for="thread-nearest" hint="whatever it is">
          <ToggleSwitch
            :model-value="!!now.nearest"
            input-id="thread-nearest"
            @update:model-value="(nearest) => plan.set({ nearest })"
          />
        </FieldRow>
        <FieldRow label="Imagine over the last bars" for="imagine" hint="you follow it, the band does not">
          <Select
            :model-value="imagined"
            input-id="imagine"
            :options="turnarounds"
            option-label="name"
            option-value="id"
            @update:model-value="imagine"
          >
            <template #option="{ option }">
              <span class="option"
                >{{ option.name }} <small><MusicText :symbol="option.text" /></small
              ></span>
            </template>
          </Select>
        </FieldRow>
        <p v-if="plan.pins.value" class="pins">
          {{ plan.pins.value }} chosen by hand in this position.
          <Button label="Let the thread choose them all" size="small" variant="outlined" @click="plan.unpinAll" />
        </p>
      </div>
    </Dialog>
  </header>
</template>

<style scoped>
.thread {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  min-height: 2.2rem;
}

h2 {
  font-size: var(--text-l);
}

.about,
.problem {
  color: var(--soft);
  font-size: var(--text-s);
}

.problem {
  color: var(--danger);
}

.do {
  margin-left: auto;
  display: flex;
  gap: 0.25rem;
  white-space: nowrap;
}

.fields {
  display: grid;
  gap: 0.75rem;
}

.option {
  display: grid;
}

.option small {
  color: var(--soft);
}

.pins {
  display: flex;
  gap: 0.75rem;
  align-items: center;
}
</style>
