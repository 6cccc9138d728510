<script setup lang="ts">
/* What is held to besides what is asked: folded to one button that tells it, and opened to all that there is. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Popover from '../../shell/ThePopover.vue'
import Select from 'primevue/select'
import MusicText from '../../music/MusicText.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import TickBox from '../../shell/TickBox.vue'
import type { HoldingNow } from './useHolding'
import type { Limits } from './useLimits'

const { limits, holding } = defineProps<{ limits: Limits; holding: HoldingNow }>()
const panel = ref<InstanceType<typeof Popover>>()
const open = ref(false)
const { kinds, voice } = holding
const { chosen, every, set } = limits
const says = computed(() =>
  kinds.value
    .filter((k) => chosen.value.has(k.id))
    .map((k) => k.options.find((o) => o.id && o.id === chosen.value.get(k.id))?.name ?? k.name)
    .join(' · '),
)
const drawn = 'drawn'
</script>

<template>
  <Button
    variant="outlined"
    class="limits"
    aria-haspopup="dialog"
    :aria-expanded="open"
    title="limits that you hold to while you play, changed every so many bars"
    @click="panel?.toggle($event)"
  >
    <span>Hold to</span> <b><MusicText :said="says || '…'" /></b><i class="pi pi-angle-down" />
  </Button>
  <Popover ref="panel" label="what is held to" @show="open = true" @hide="open = false">
    <div class="choice">
      <div v-for="k in kinds" :key="k.id" class="kind">
        <TickBox :model-value="chosen.has(k.id)" @update:model-value="set(k.id, $event ? '' : undefined)">
          <span
            >{{ k.name }}<small>{{ k.about }}</small></span
          >
        </TickBox>
        <Select
          v-if="chosen.has(k.id) && k.options.length > 1"
          :model-value="chosen.get(k.id) || drawn"
          :options="[{ id: drawn, name: 'drawn anew' }, ...k.options]"
          option-label="name"
          option-value="id"
          :aria-label="`which of ${k.name}`"
          append-to="self"
          @update:model-value="set(k.id, $event === drawn ? '' : $event)"
        />
      </div>
      <p v-if="chosen.size > 1" class="note">One of them in each chorus, then all together.</p>
      <div class="row">
        <span>others every</span>
        <SegmentedChoice
          v-model="every"
          :options="[
            { id: '2', name: '2 bars' },
            { id: '4', name: '4' },
            { id: '8', name: '8' },
            { id: '0', name: 'never' },
          ]"
          label="others every"
        />
        <Button label="Others" variant="text" :disabled="!chosen.size" @click="limits.another" />
      </div>
      <div class="row">
        <TickBox v-if="voice.can.value" v-model="voice.on.value">said a bar ahead</TickBox>
        <span class="space" />
        <Button label="Nothing more" variant="text" :disabled="!chosen.size" @click="limits.clear" />
      </div>
    </div>
  </Popover>
</template>

<style scoped>
.limits {
  max-width: min(26rem, 100%);
}

.limits span {
  color: var(--soft);
}

.limits b {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.choice {
  display: grid;
  gap: 0.4rem;
  width: min(30rem, 84vw);
  max-height: 70vh;
  overflow-y: auto;
}

.kind,
.row {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.3rem 0.75rem;
}

small {
  display: block;
  color: var(--soft);
  font-size: var(--text-s);
}

.note,
.row > span {
  color: var(--soft);
}

.space {
  flex: 1;
}
</style>
