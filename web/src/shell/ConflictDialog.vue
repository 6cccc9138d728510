<script setup lang="ts">
/* Something was changed in another window or by another program while it was changed here. */
import { computed } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { conflict } from '../api/keeper'

const open = computed(() => !!conflict.value)
</script>

<template>
  <Dialog
    :visible="open"
    modal
    :closable="false"
    :close-on-escape="false"
    header="Changed elsewhere"
    :style="{ width: 'min(34rem, 94vw)' }"
  >
    <p>
      <b>{{ conflict?.what }}</b> was changed in another window or by another program since you opened it here. Nothing
      is lost yet: which of the two shall stay?
    </p>
    <p v-if="conflict?.differs" class="differs">They differ in {{ conflict.differs }}.</p>
    <footer>
      <Button label="Take theirs" variant="outlined" @click="conflict?.decide('theirs')" />
      <Button v-if="conflict?.both" label="Keep both" variant="outlined" @click="conflict?.decide('both')" />
      <Button label="Keep mine" autofocus @click="conflict?.decide('mine')" />
    </footer>
  </Dialog>
</template>

<style scoped>
p {
  margin: 0 0 1rem;
}

.differs {
  color: var(--soft);
}

footer {
  display: flex;
  justify-content: flex-end;
  gap: 0.75rem;
}
</style>
