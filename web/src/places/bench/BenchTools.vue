<script setup lang="ts">
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import FoldOnNarrow from '../../shell/FoldOnNarrow.vue'
import WindowChooser from './WindowChooser.vue'
import { labelKinds, type Bench } from './useBench'
import PressButton from '../../shell/PressButton.vue'

defineProps<{ bench: Bench }>()
const layerNames = { tones: 'tones', arrivals: 'arrivals', palette: 'palette', bends: 'bends' }
</script>

<template>
  <div class="tools">
    <WindowChooser
      :positions="bench.positions.value"
      :selected="bench.position.value"
      :own="bench.own.value"
      :way="bench.way.value"
      :music-key="bench.data.value?.chart.key"
      :instrument="bench.data.value?.instrument"
      @number="bench.setNumber"
      @own="bench.setOwn"
      @leave="bench.leaveOwn"
    />
    <FoldOnNarrow name="Marks">
      <SegmentedChoice
        class="labels"
        :model-value="bench.labels.value"
        :options="labelKinds.map((k) => ({ id: k, name: k }))"
        label="labels"
        @update:model-value="(k) => k && bench.setLabels(k)"
      />
      <div class="layers" role="group" aria-label="layers on the neck; press one to dim it">
        <PressButton
          v-for="l in bench.layers"
          :key="l"
          :class="{ off: bench.dimmed.value.has(l) }"
          :aria-pressed="!bench.dimmed.value.has(l)"
          :title="`${bench.dimmed.value.has(l) ? 'show' : 'dim'} the ${l}`"
          @click="bench.dim(l)"
        >
          <i class="pi" :class="bench.dimmed.value.has(l) ? 'pi-eye-slash' : 'pi-eye'" />{{ layerNames[l] }}
        </PressButton>
      </div>
    </FoldOnNarrow>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.75rem;
  align-items: center;
}

.layers {
  display: flex;
  margin-left: auto;
}

.layers button {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
  min-height: var(--target);
  padding: 0 0.45rem;
  border: 0;
  background: none;
  color: inherit;
  font-size: var(--text-s);
  cursor: pointer;
}

.layers .off {
  color: var(--soft);
  text-decoration: line-through;
}

@media (max-width: 43.75em) {
  .tools {
    display: contents;
  }

  .tools :deep(.windows) {
    grid-area: where;
  }

  .tools :deep(.fold) {
    grid-area: tools;
  }

  .layers {
    flex-wrap: wrap;
    margin-left: 0;
  }
}
</style>
