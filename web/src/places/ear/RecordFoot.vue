<script setup lang="ts">
/* The strip of a recording: play, how slowly, and what follows each round. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Select from 'primevue/select'
import Slider from 'primevue/slider'
import PressButton from '../../shell/PressButton.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import TickBox from '../../shell/TickBox.vue'
import { Popover } from '../../shell/parts'
import { useCommand } from '../../shell/useCommands'
import { clock } from '../../recording/inHand'
import { sides } from '../../recording/sides'
import type { Against } from '../../recording/player'
import type { RecordingSound } from './useRecordingSound'

const props = defineProps<{
  sound: RecordingSound
  tempo?: number
  cents: number
  ways?: { id: Against; name: string }[]
}>()
const play = useCommand('play')
const turn = useCommand('myTurn')
const each = useCommand('slowerEach')
/* On a narrow screen how fast, and what follows each round, waits behind a press. */
const unfolded = ref(false)
const panel = ref<InstanceType<typeof Popover>>()
const speeds = [
  { id: 0.25, name: '¼' },
  { id: 0.5, name: '½' },
  { id: 0.75, name: '¾' },
  { id: 1, name: 'full' },
]
const how = computed(() => props.sound.how)
const rate = computed({ get: () => how.value.rate, set: (r) => props.sound.change({ rate: r }) })
const words = computed(() => {
  const { rate, pitch } = how.value
  const speed = rate === 1 ? 'full speed' : rate === 0.5 ? 'half speed' : `${Math.round(rate * 100)} % of its speed`
  return `${speed}, ${pitch ? `${pitch > 0 ? '+' : '−'}${Math.abs(Math.round(pitch * 100) / 100)} half steps` : 'same pitch'}`
})
/** Bands that are let through, as players call them. */
const bands = [
  { id: 'all', name: 'all', low: 20, high: 20000 },
  { id: 'guitar', name: 'guitar', low: 110, high: 5200 },
  { id: 'bass', name: 'bass', low: 30, high: 420 },
] as const
const band = computed({
  get: () => bands.find((b) => b.low === how.value.low && b.high === how.value.high)?.id,
  set: (id) => {
    const b = bands.find((b) => b.id === id) ?? bands[0]
    props.sound.change({ low: b.low, high: b.high })
  },
})
const side = computed({ get: () => how.value.side, set: (side) => props.sound.change({ side }) })
const sideName = computed(() => sides.find((s) => s.id === how.value.side)!.name)
const steps = computed({
  get: () => Math.round(how.value.pitch),
  set: (n) => props.sound.change({ pitch: n + fine.value / 100 }),
})
const fine = computed({
  get: () => Math.round((how.value.pitch - Math.round(how.value.pitch)) * 100),
  set: (c) => props.sound.change({ pitch: steps.value + c / 100 }),
})
const inTune = () => props.sound.change({ pitch: steps.value - props.cents / 100 })
const loop = computed({ get: () => props.sound.modes.loop, set: (on) => props.sound.loop(on) })
const counted = computed({ get: () => props.sound.kept.value.countIn, set: (on) => props.sound.count(on) })
const against = computed({ get: () => props.sound.modes.against, set: (way) => props.sound.set(way) })
const volume = computed({ get: () => Math.round(how.value.volume * 100), set: (v) => props.sound.change({ volume: v / 100 }) }) // prettier-ignore
</script>

<template>
  <footer class="foot" :class="{ unfolded }" aria-label="the recording plays">
    <Button
      v-bind="play"
      class="play"
      :icon="sound.playing.value ? 'pi pi-stop' : 'pi pi-play'"
      :label="sound.playing.value ? 'Stop' : 'Play'"
      :disabled="sound.opening.value"
    />
    <b v-if="tempo" class="big" :title="words">{{ Math.round(tempo * how.rate) }}</b>
    <span v-if="how.pitch" class="soft">{{ words }}</span>
    <span class="soft time">{{ clock(sound.at.value) }}</span>
    <span v-if="sound.round.value.gap" class="turn" role="status">your turn</span>
    <span v-if="sound.trouble.value" class="trouble" role="alert">{{ sound.trouble.value }}</span>
    <span class="space" />
    <PressButton
      class="fold"
      :aria-expanded="unfolded"
      :aria-label="`${unfolded ? 'less' : 'more'} of how it plays`"
      @click="unfolded = !unfolded"
      ><i class="pi" :class="unfolded ? 'pi-angle-down' : 'pi-angle-up'"
    /></PressButton>
    <div class="rest">
      <Select
        v-if="ways"
        v-model="against"
        :options="ways"
        option-label="name"
        option-value="id"
        size="small"
        aria-label="my line against the record"
        class="against"
      />
      <SegmentedChoice v-model="rate" :options="speeds" label="how fast" />
      <PressButton v-bind="each" :class="{ on: sound.modes.slower }" :aria-pressed="sound.modes.slower"
        >slower each round</PressButton
      >
      <PressButton v-bind="turn" :class="{ on: sound.modes.turn }" :aria-pressed="sound.modes.turn"
        >my turn after it</PressButton
      >
      <PressButton aria-haspopup="dialog" @click="panel?.toggle($event)">{{ sideName }}</PressButton>
      <PressButton aria-haspopup="dialog" @click="panel?.toggle($event)"
        >{{ fine >= 0 ? '+' : '−' }}{{ Math.abs(fine) }} cents</PressButton
      >
    </div>
    <Popover ref="panel" label="how it sounds">
      <div class="panel">
        <p>Sides</p>
        <SegmentedChoice v-model="side" :options="sides" label="which side" />
        <p>What is let through</p>
        <SegmentedChoice v-model="band" :options="[...bands]" label="which band" />
        <p>
          Half steps higher or lower: <b>{{ steps }}</b>
        </p>
        <Slider v-model="steps" :min="-12" :max="12" aria-label="half steps" />
        <p>
          Cents: <b>{{ fine }}</b>
          <Button
            v-if="cents"
            :label="`in tune with your guitar (${cents > 0 ? '−' : '+'}${Math.abs(cents)})`"
            variant="text"
            @click="inTune"
          />
        </p>
        <Slider v-model="fine" :min="-50" :max="50" aria-label="cents" />
        <p>
          How loud: <b>{{ volume }}</b>
        </p>
        <Slider v-model="volume" :min="0" :max="100" aria-label="how loud" />
        <TickBox v-model="loop">the stretch goes round</TickBox>
        <TickBox v-model="counted">a bar is counted first</TickBox>
        <p class="soft">
          Loud music tires ears: stay below where you have to raise your voice, and rest them now and then.
        </p>
      </div>
    </Popover>
  </footer>
</template>

<style scoped>
.foot {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.75rem;
  padding: 0.45rem 1.25rem;
  border-top: 2px solid var(--ink);
  background: var(--raised);
  z-index: 3;
}

.big {
  font: 600 var(--text-xl) / 1 var(--font-display);
}

.soft {
  color: var(--soft);
}

.time {
  min-width: 4rem;
  font-variant-numeric: tabular-nums;
}

.turn {
  padding: 0.1rem 0.7rem;
  border-radius: 999px;
  background: var(--lit);
  font-weight: 700;
}

.trouble {
  color: var(--danger);
}

.against {
  width: 10.5rem;
}

.space {
  flex: 1;
}

.rest button:not(.segments *, .against *) {
  min-height: var(--target);
  padding: 0 0.9rem;
  border: 1.5px solid var(--rule);
  border-radius: var(--round);
  background: var(--raised);
  color: inherit;
  font-weight: 600;
  cursor: pointer;
}

.rest button.on:not(.segments *) {
  background: var(--ink);
  color: var(--paper);
  border-color: var(--ink);
}

.rest {
  display: contents;
}

.fold {
  display: none;
}

@media (max-width: 56.25em) {
  .foot {
    padding: 0.6rem 0.75rem;
  }

  .fold {
    display: grid;
    place-items: center;
    width: var(--target);
    height: var(--target);
    border: 0;
    background: none;
    color: inherit;
    cursor: pointer;
  }

  .rest {
    display: none;
  }

  .unfolded .rest {
    display: flex;
    flex: 1 0 100%;
    flex-wrap: wrap;
    gap: 0.5rem;
    order: -1;
  }
}

.panel {
  display: grid;
  gap: 0.6rem;
  width: min(26rem, 86vw);
}
</style>
