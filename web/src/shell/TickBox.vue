<script setup lang="ts">
/* A box to tick, with its words beside it. */
const on = defineModel<boolean>({ required: true })
</script>

<template>
  <label class="tick-box"><input v-model="on" type="checkbox" /><slot /></label>
</template>

<style scoped>
.tick-box {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 2.25rem;
}

input {
  width: 1.5rem;
  height: 1.5rem;
  flex: none;
  accent-color: var(--ink);
}
</style>
