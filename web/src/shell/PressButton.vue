<script setup lang="ts">
/* What is pressed but does not look like a button of its own: a row, a mark, a part of a bar. The place dresses it. */
import Button from 'primevue/button'
</script>

<template>
  <Button unstyled><slot /></Button>
</template>
