<script setup lang="ts">
import WindowChooser from './WindowChooser.vue'
import { labelKinds, type Bench } from './useBench'

defineProps<{ bench: Bench }>()
const layerNames = { tones: 'tones', arrivals: 'arrivals', palette: 'palette', bends: 'bends' }
</script>

<template>
  <div class="tools">
    <div class="segments labels" role="group" aria-label="labels">
      <button
        v-for="k in labelKinds"
        :key="k"
        type="button"
        :class="{ on: k === bench.labels.value }"
        :aria-pressed="k === bench.labels.value"
        @click="bench.setLabels(k)"
      >
        {{ k }}
      </button>
    </div>
    <WindowChooser
      :positions="bench.positions.value"
      :selected="bench.position.value"
      :own="bench.own.value"
      :small-box="bench.data.value?.smallBox"
      :last="bench.data.value?.instrument.last ?? 22"
      @number="bench.setNumber"
      @own="bench.setOwn"
      @leave="bench.leaveOwn"
    />
    <div class="layers" role="group" aria-label="layers on the neck; press one to dim it">
      <button
        v-for="l in bench.layers"
        :key="l"
        type="button"
        :class="{ off: bench.dimmed.value.has(l) }"
        :aria-pressed="!bench.dimmed.value.has(l)"
        :title="`${bench.dimmed.value.has(l) ? 'show' : 'dim'} the ${l}`"
        @click="bench.dim(l)"
      >
        <i class="pi" :class="bench.dimmed.value.has(l) ? 'pi-eye-slash' : 'pi-eye'" />{{ layerNames[l] }}
      </button>
    </div>
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
</style>
