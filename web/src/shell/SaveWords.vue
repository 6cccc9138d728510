<script setup lang="ts">
/* Whether a document is kept, and if not, why. */
import { stateWords, type SaveState } from '../document/useAutosave'

defineProps<{ state: SaveState; why?: string }>()
</script>

<template>
  <span role="status" :class="{ why }" :title="why"
    >{{ stateWords[state] }}<template v-if="why">: {{ why }}</template></span
  >
</template>

<style scoped>
.why {
  display: inline-block;
  max-width: 24rem;
  overflow: hidden;
  text-overflow: ellipsis;
  vertical-align: bottom;
  white-space: nowrap;
}
</style>
