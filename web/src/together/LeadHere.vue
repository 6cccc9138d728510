<script setup lang="ts">
/* A page at the laptop: devices follow it while they are let in. */
import { onMounted } from 'vue'
import { networkOn, readNetwork } from './network'
import { useLead } from './useLead'

useLead(() => networkOn.value)
onMounted(() => void readNetwork().catch(() => {})) // where nobody answers nobody follows
</script>

<template>
  <span hidden />
</template>
