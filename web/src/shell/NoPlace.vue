<script setup lang="ts">
import Button from 'primevue/button'
import EmptyPlace from './EmptyPlace.vue'
</script>

<template>
  <EmptyPlace title="Nothing here" text="This address leads nowhere. The Bench has the chart you opened last.">
    <Button as="router-link" :to="{ name: 'bench' }" label="To the Bench" />
  </EmptyPlace>
</template>
