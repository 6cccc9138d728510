<script setup lang="ts">
/* Whether a document is kept, and if not, why. */
import { stateWords, type SaveState } from '../document/useAutosave'

defineProps<{ state: SaveState; why?: string }>()
</script>

<template>
  <span role="status"
    >{{ stateWords[state] }}<template v-if="why">: {{ why }}</template></span
  >
</template>
