<script setup lang="ts">
/* What the thread is made from: which tones, on which strings, in which order. */
import { computed } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import ToggleSwitch from 'primevue/toggleswitch'
import { useToast } from 'primevue/usetoast'
import type { Role } from '../../api/client'
import { everyString, stringSets, useDivision } from '../../api/division'
import { useCatalogue } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import { engrave } from '../../music/text'
import FieldRow from '../../shell/FieldRow.vue'
import type { Bench } from './useBench'
import type { PlanState } from './usePlan'

const props = defineProps<{ bench: Bench; plan: PlanState; mode: string }>()
const choosing = defineModel<boolean>({ required: true })
const catalogue = useCatalogue()
const toast = useToast()
const now = computed(() => props.plan.plan.value)

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
      <FieldRow v-for="n in numerals" :key="n" :label="`Only on ${engrave(n)}`" for="" hint="nothing chosen: as above">
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
</template>

<style scoped>
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
