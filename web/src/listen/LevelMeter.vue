<script setup lang="ts">
/* How loud it is, in decibels beneath full scale, and from where on it is listened to. */
const props = defineProps<{ level: number; gate: number; small?: boolean }>()
const lowest = -80
const part = (db: number) => Math.max(0, Math.min(1, (db - lowest) / -lowest))
const hot = () => props.level > -3
</script>

<template>
  <span
    class="meter"
    :class="{ small, hot: hot() }"
    role="meter"
    aria-label="level"
    :aria-valuemin="lowest"
    aria-valuemax="0"
    :aria-valuenow="Math.round(level)"
  >
    <span class="bar" :style="{ transform: `scaleX(${part(level)})` }" />
    <span class="gate" :style="{ left: `${100 * part(gate)}%` }" />
  </span>
</template>

<style scoped>
.meter {
  position: relative;
  display: block;
  height: 1.1rem;
  border: 1px solid currentcolor;
  border-radius: 3px;
  overflow: hidden;
}

.small {
  display: inline-block;
  width: 3.2rem;
  height: 0.7rem;
}

.bar {
  position: absolute;
  inset: 0;
  background: var(--seventh);
  transform-origin: left;
}

.hot .bar {
  background: var(--third);
}

.gate {
  position: absolute;
  inset-block: 0;
  width: 2px;
  background: currentcolor;
}
</style>
