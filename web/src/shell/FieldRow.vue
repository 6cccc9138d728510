<script setup lang="ts">
/* A labelled field with a hint, and what is wrong with it underneath. */
defineProps<{ label: string; for: string; hint?: string; wrong?: string }>()
</script>

<template>
  <div class="field">
    <label :for="$props.for"
      >{{ label }} <small v-if="hint">{{ hint }}</small></label
    >
    <slot />
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: 12rem minmax(0, 1fr);
  align-items: center;
  gap: 0.15rem 1rem;
  justify-items: start;
}

label {
  line-height: 1.2;
}

small {
  display: block;
  color: var(--soft);
  font-size: 0.9rem;
}

.wrong {
  grid-column: 2;
  color: var(--danger);
  font-size: var(--text-s);
}

@media (max-width: 35em) {
  .field {
    grid-template-columns: minmax(0, 1fr);
  }

  .wrong {
    grid-column: 1;
  }
}
</style>
