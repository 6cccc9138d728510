<script setup lang="ts">
/* Which palette, of the usual ones and of the player's own; one can be made here. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { usePalettes } from '../../api/palettes'
import MusicText from '../../music/MusicText.vue'
import { engrave } from '../../music/text'
import FieldRow from '../../shell/FieldRow.vue'
import PressButton from '../../shell/PressButton.vue'
import { later } from '../../shell/later'
import { Select } from '../../shell/parts'

const FormDialog = later(() => import('../../shell/FormDialog.vue'))

const palette = defineModel<string>({ required: true })
const { all, mine, steps, stepsOf, nameOf, keep, drop } = usePalettes()
/* The palette in hand is in the list also when it is another player's own. */
const options = computed(() =>
  all.value.some((p) => p.id === palette.value)
    ? all.value
    : [...all.value, { id: palette.value, name: engrave(nameOf(palette.value)) }],
)

const making = ref(false)
const choice = ref<{ hide: () => void }>()
const name = ref('')
const chosen = ref<string[]>([])
const trouble = ref('')
function begin() {
  choice.value?.hide()
  name.value = mine.value.find((p) => p.id === palette.value)?.name ?? ''
  chosen.value = stepsOf(palette.value)
  trouble.value = ''
  making.value = true
}
const turn = (step: string) =>
  (chosen.value = chosen.value.includes(step) ? chosen.value.filter((s) => s !== step) : [...chosen.value, step])
async function done() {
  const title = name.value.trim()
  trouble.value = !title ? 'Give it a name.' : chosen.value.length < 3 ? 'A palette has three steps at least.' : ''
  if (trouble.value) return
  try {
    palette.value = (await keep(title, chosen.value)) ?? palette.value
    making.value = false
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
</script>

<template>
  <Select
    ref="choice"
    v-model="palette"
    :options="options"
    option-label="name"
    option-value="id"
    size="small"
    scroll-height="26rem"
    aria-label="palette"
  >
    <template #footer>
      <PressButton class="make" @click="begin"><i class="pi pi-plus" aria-hidden="true" />One of your own</PressButton>
    </template>
  </Select>
  <FormDialog v-model="making" header="A palette of your own" action="Keep it" :trouble="trouble" @done="done">
    <FieldRow label="Name" for="palette-name">
      <InputText id="palette-name" v-model="name" maxlength="60" autofocus />
    </FieldRow>
    <FieldRow label="Steps of the key" for="" hint="counted from its tonic">
      <span class="steps" role="group" aria-label="steps of the palette">
        <PressButton v-for="s in steps" :key="s" :aria-pressed="chosen.includes(s)" @click="turn(s)"
          ><MusicText :symbol="s"
        /></PressButton>
      </span>
    </FieldRow>
    <ul v-if="mine.length" class="mine">
      <li v-for="p in mine" :key="p.id">
        {{ p.name }} <span><MusicText :symbol="stepsOf(p.id).join(' ')" /></span>
        <Button
          label="Take it away"
          size="small"
          variant="text"
          :aria-label="`take ${p.name} away`"
          @click="drop(p.id)"
        />
      </li>
    </ul>
  </FormDialog>
</template>

<style scoped>
.make {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  width: 100%;
  min-height: var(--target);
  padding: 0 0.75rem;
  border: 0;
  border-top: 1px solid var(--rule);
  background: none;
  color: inherit;
  cursor: pointer;
}

.steps {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem;
}

.steps button {
  min-width: 2.6rem;
  min-height: var(--target);
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: var(--raised);
  color: inherit;
  font-weight: 600;
  cursor: pointer;
}

.steps button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--paper);
}

.mine li {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}

.mine span {
  color: var(--soft);
  margin-right: auto;
}
</style>
