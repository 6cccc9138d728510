<script setup lang="ts">
/* The tabs of a line: what can be done with it, and how many of its changes are landed. */
import { computed } from 'vue'
import type { Study } from '../../api/client'
import { panels } from './panels'
import PressButton from '../../shell/PressButton.vue'

const panel = defineModel<string>({ required: true })
const props = defineProps<{ report: Study['report'] }>()
const landed = computed(() => {
  const r = props.report
  if (!r.chordTones && !r.palette && !r.others) return undefined
  return { count: r.landings.filter((l) => l.landed).length, of: r.landings.length, wide: r.stretches.length }
})
</script>

<template>
  <div class="segments" role="tablist" aria-label="what to do with the line">
    <PressButton
      v-for="t in panels"
      :key="t.id"
      role="tab"
      :aria-selected="panel === t.id"
      :aria-controls="panel === t.id ? `panel-${t.id}` : undefined"
      :class="{ on: panel === t.id }"
      @click="panel = panel === t.id ? '' : t.id"
    >
      <template v-if="t.id === 'landings' && landed"
        ><b>{{ landed.count }} of {{ landed.of }}</b> landed<template v-if="landed.wide">
          · {{ landed.wide }} wide</template
        ></template
      ><template v-else>{{ t.name }}</template>
    </PressButton>
  </div>
</template>

<style scoped>
.segments > button {
  padding: 0 0.5rem;
}

.segments b {
  color: var(--seventh);
}

.segments .on b {
  color: inherit;
}
</style>
