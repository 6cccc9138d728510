<script setup lang="ts">
/* What is told in passing, and what was told before this was there. */
import { onMounted } from 'vue'
import Toast from 'primevue/toast'
import { tellKept } from './toastsKept'
import UndoToast from './UndoToast.vue'

onMounted(tellKept)
</script>

<template>
  <UndoToast />
  <Toast position="bottom-right" />
</template>
