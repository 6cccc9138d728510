<script setup lang="ts">
/* Where on the neck: the five positions at hand, and behind them every way to divide it, on any strings. */
import { ref } from 'vue'
import type { Instrument, Position } from '../../api/client'
import { positionName, told, type Region } from '../../neck/region'
import PressButton from '../../shell/PressButton.vue'
import { later, useOpener } from '../../shell/later'
import { Popover } from '../../shell/parts'

const RegionForm = later(() => import('./RegionForm.vue'))

const props = defineProps<{
  positions: Position[]
  selected: number
  own?: Region
  /** by which way it was chosen */
  way?: string
  musicKey?: string
  instrument?: Instrument
}>()
const emit = defineEmits<{
  number: [n: number]
  own: [low: number, high: number, strings: number[], way?: string]
  leave: []
}>()

/** One button a position, up the neck, the open one first; it shows the octave that is in hand. */
const numbers = () => {
  const chosen = props.positions[props.selected]
  const five = [1, 2, 3, 4, 5].flatMap((n) => {
    const same = props.positions.filter((p) => p.number === n)
    const p = same.find((s) => s === chosen) ?? same.find((s) => !s.octave) ?? same[0]
    return p ? [{ n, p, on: p === chosen && !props.own, twice: same.length > 1 }] : []
  })
  return five.toSorted((a, b) => a.p.low - b.p.low)
}

const panel = ref<InstanceType<typeof Popover>>()
const open = useOpener(panel)
</script>

<template>
  <div class="segments windows" role="group" aria-label="position">
    <template v-for="{ n, p, on, twice } in numbers()" :key="n">
      <PressButton
        :class="{ on }"
        :aria-pressed="on"
        :title="`${positionName(p)} (${n})`"
        @click="on || emit('number', n)"
      >
        {{ p.low }}–{{ p.high
        }}<span v-if="on && p.shape" class="shape"> · {{ p.nut ? 'open ' : '' }}{{ p.shape }} shape</span>
      </PressButton>
      <PressButton
        v-if="on && twice"
        class="octave"
        :aria-label="`the same position an octave ${p.octave ? 'lower' : 'higher'}`"
        :title="`the same position an octave ${p.octave ? 'lower' : 'higher'} (${n} again)`"
        @click="emit('number', n)"
      >
        8ve
      </PressButton>
    </template>
    <PressButton
      :class="{ on: own }"
      :aria-pressed="!!own"
      aria-haspopup="dialog"
      title="other ways to divide the neck, and some strings alone"
      @click="open"
    >
      {{ own ? told(own) : 'elsewhere …' }}
    </PressButton>
    <Popover ref="panel" label="where on the neck">
      <RegionForm
        :now="own ?? positions[selected]"
        :own="own"
        :way="way"
        :music-key="musicKey"
        :instrument="instrument"
        @own="(low, high, strings, way) => (emit('own', low, high, strings, way), panel?.hide())"
        @leave="(emit('leave'), panel?.hide())"
      />
    </Popover>
  </div>
</template>
