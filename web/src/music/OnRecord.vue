<script setup lang="ts">
/* What was learned from a recording leads back to where it was heard. */
defineProps<{ heard: { recording: number; from: number; to: number } }>()
</script>

<template>
  <RouterLink
    class="record"
    :to="{
      name: 'recording',
      params: { id: heard.recording },
      query: { from: heard.from.toFixed(2), to: heard.to.toFixed(2) },
    }"
    ><i class="pi pi-play" /> hear it on the record</RouterLink
  >
</template>

<style scoped>
.record {
  font-weight: 600;
}

i {
  font-size: 0.8em;
}
</style>
