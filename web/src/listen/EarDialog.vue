<script setup lang="ts">
/* The ear: on or off, how loud, in tune; and how far what is played lies behind the band, measured. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import type { Instrument } from '../api/client'
import TickBox from '../shell/TickBox.vue'
import LevelMeter from './LevelMeter.vue'
import TunerDial from './TunerDial.vue'
import { useCalibration } from './useCalibration'
import { useEar } from './useEar'

const open = defineModel<boolean>({ required: true })
defineProps<{ instrument?: Instrument }>()
const ear = useEar()
const measure = useCalibration()
const tuning = ref(false)
/* What is to be kept is kept from now on: the ear opens anew. */
function keepSound(now: boolean) {
  ear.kept.sound = now
  if (!ear.on) return
  ear.close()
  void ear.open(ear.source)
}
const found = computed(() => {
  const { delay, band, guitar, graded } = ear.kept
  if (delay === null) return 'Not measured yet: takes are judged with the usual delay of this machine.'
  const apart = band !== null && guitar !== null ? Math.round(band - guitar) : undefined
  return `${Math.round(delay * 1000)} ms behind the band${apart === undefined ? '' : `, the band ${apart} dB ${apart < 0 ? 'under' : 'over'} the guitar`}${graded ? '' : ': too loud to judge; use headphones, no louder than lets you hear somebody speak beside you'}.`
})
</script>

<template>
  <Dialog v-model:visible="open" modal header="The ear" :style="{ width: 'min(34rem, 94vw)' }" @hide="measure.stop">
    <div class="ear">
      <p class="row">
        <Button
          :label="ear.on ? 'Stop listening' : 'Listen'"
          icon="pi pi-microphone"
          :loading="ear.opening"
          @click="ear.turn"
        />
        <Button
          v-if="!ear.on"
          label="Listen to a simulated player"
          variant="outlined"
          title="one who sounds, errs now and then, and is heard as you would be"
          :disabled="ear.opening"
          @click="ear.open('player')"
        />
        <span class="level"><LevelMeter :level="ear.level" :gate="ear.kept.gate" /></span>
      </p>
      <p v-if="ear.trouble" class="trouble" role="alert">{{ ear.trouble }}</p>
      <p v-else-if="ear.clips" class="trouble" role="alert">
        What you play is cut off, since it comes in too loud. Turn the input down until the loudest stroke stays beneath
        the end of the meter.
      </p>
      <p v-if="ear.dead" role="status">
        Nothing comes in by the {{ ear.dead }} side: the {{ ear.dead === 'left' ? 'right' : 'left' }} one is listened
        to.
      </p>
      <p v-if="ear.on && ear.source === 'player'">
        A simulated player plays along wherever the band plays something to practise, and is heard by the same ear. It
        errs now and then. Your log and the plan count it only while it stands in for you in a plan that runs.
      </p>
      <template v-else-if="ear.on">
        <section v-if="measure.step.value" class="measure" aria-live="polite">
          <p class="big">{{ measure.says.value }}</p>
          <Button label="Stop" variant="outlined" @click="measure.stop" />
        </section>
        <section v-else-if="tuning && instrument">
          <TunerDial :instrument="instrument" :pitch="ear.pitch" />
          <Button label="No tuner" variant="outlined" @click="tuning = false" />
        </section>
        <section v-else class="choose">
          <p>
            {{ found }}
            <span v-if="measure.trouble.value" class="trouble" role="alert">{{ measure.trouble.value }}</span>
          </p>
          <p class="row">
            <Button label="Measure" title="one bar of the band, then eight notes to the click" @click="measure.start" />
            <Button v-if="instrument" label="Tune" variant="outlined" @click="tuning = true" />
            <Button
              v-if="ear.kept.delay !== null"
              label="Forget what was measured"
              variant="text"
              @click="measure.forget"
            />
          </p>
        </section>
      </template>
      <p v-else class="soft">
        What you play stays in this browser: only the notes that were heard are judged. Headphones keep the band out of
        the microphone; play them no louder than that you would still hear somebody speak beside you.
      </p>
      <TickBox :model-value="ear.kept.sound" @update:model-value="keepSound">
        keep takes as they sounded, too: some three megabytes a minute
      </TickBox>
    </div>
  </Dialog>
</template>

<style scoped>
.ear,
section {
  display: grid;
  gap: 0.75rem;
  justify-items: start;
  width: 100%;
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.75rem;
  width: 100%;
}

.level {
  flex: 1;
}

.big {
  font: 600 var(--text-xl) / 1.2 var(--font-display);
  text-wrap: balance;
  min-height: 4rem;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

.soft {
  color: var(--soft);
}
</style>
