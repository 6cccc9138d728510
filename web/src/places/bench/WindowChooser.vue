<script setup lang="ts">
import { ref } from 'vue'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import Popover from 'primevue/popover'
import type { Position } from '../../api/client'
import PressButton from '../../shell/PressButton.vue'

const props = defineProps<{
  positions: Position[]
  selected: number
  own?: { low: number; high: number }
  last: number
  /** The box on the top three strings. */
  smallBox?: Position
}>()
const emit = defineEmits<{ number: [n: number]; own: [low: number, high: number]; leave: [] }>()

/** One button a position; it shows the octave that is in hand. */
const numbers = () => {
  const chosen = props.positions[props.selected]
  return [1, 2, 3, 4, 5].flatMap((n) => {
    const same = props.positions.filter((p) => p.number === n)
    const p = same.find((s) => s === chosen) ?? same.find((s) => !s.octave && !s.nut) ?? same[0]
    return p ? [{ n, p, on: p === chosen && !props.own, twice: same.length > 1 }] : []
  })
}

const panel = ref<InstanceType<typeof Popover>>()
const low = ref(5)
const high = ref(8)
const wrong = ref('')
function open(e: Event) {
  const from = props.own ?? props.positions[props.selected]
  low.value = from?.low ?? 5
  high.value = from?.high ?? 8
  wrong.value = ''
  panel.value?.toggle(e)
}
function take() {
  if (low.value === null || high.value === null || low.value < 0 || high.value > props.last || low.value > high.value) {
    wrong.value = `A window on this neck begins at fret 0 or higher, ends at fret ${props.last} or lower, and not before it begins.`
    return
  }
  emit('own', low.value, high.value)
  panel.value?.hide()
}
</script>

<template>
  <div class="segments windows" role="group" aria-label="position">
    <PressButton
      v-for="{ n, p, on, twice } in numbers()"
      :key="n"
      :class="{ on }"
      :aria-pressed="on"
      :title="`position ${n}${twice ? ', again for the other octave' : ''}`"
      @click="emit('number', n)"
    >
      {{ p.low }}–{{ p.high
      }}<span v-if="on && p.shape" class="shape"> · {{ p.nut ? 'open ' : '' }}{{ p.shape }} shape</span>
    </PressButton>
    <PressButton :class="{ on: own }" :aria-pressed="!!own" title="a window of your own" @click="open">
      <template v-if="own">own · {{ own.low }}–{{ own.high }}</template>
      <template v-else>own …</template>
    </PressButton>
    <Popover ref="panel">
      <form class="own" @submit.prevent="take">
        <p>A window of your own</p>
        <label
          >from fret <InputNumber v-model="low" input-id="own-low" :min="-99" :max="99" :invalid="!!wrong"
        /></label>
        <label
          >to fret <InputNumber v-model="high" input-id="own-high" :min="-99" :max="99" :invalid="!!wrong"
        /></label>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <div class="row">
          <Button type="submit" label="Use it" />
          <Button v-if="own" label="Back to positions" variant="outlined" @click="(emit('leave'), panel?.hide())" />
        </div>
        <Button
          v-if="smallBox"
          :label="`The small box, ${smallBox.low}–${smallBox.high}`"
          variant="outlined"
          @click="(emit('own', smallBox.low, smallBox.high), panel?.hide())"
        />
        <small>Or drag along the fret numbers under the neck.</small>
      </form>
    </Popover>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  gap: 0.6rem;
  width: 18rem;
}

.own p:first-child {
  font: 600 var(--text-m) var(--font-display);
}

.own label {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

.own :deep(input) {
  width: 5rem;
}

.row {
  display: flex;
  gap: 0.5rem;
}

.wrong {
  color: var(--danger);
  font-size: var(--text-s);
}

small {
  color: var(--soft);
  font-size: 0.875rem;
}
</style>
