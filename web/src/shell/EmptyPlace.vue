<script setup lang="ts">
defineProps<{ title: string; text: string }>()
</script>

<template>
  <div class="empty">
    <h1>{{ title }}</h1>
    <p>{{ text }}</p>
    <div class="actions"><slot /></div>
  </div>
</template>

<style scoped>
.empty {
  display: grid;
  justify-items: start;
  align-content: center;
  gap: var(--gap-m);
  min-height: 70vh;
  padding: 0 12%;
}

h1 {
  font-size: 2.25rem;
}

p {
  max-width: 36rem;
  color: var(--soft);
  font-size: var(--text-l);
}

.actions {
  display: flex;
  gap: 0.75rem;
}
</style>
