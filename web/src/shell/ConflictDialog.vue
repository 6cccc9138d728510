<script setup lang="ts">
/* Work met something else: it was changed or deleted in another window, by another program, or since an earlier visit. */
import { computed } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { question, type Question } from '../api/questions'

const words: Record<Question['kind'], { header: string; says: string; theirs: string; both: string; mine: string }> = {
  changed: {
    header: 'Changed elsewhere',
    says: 'was changed in another window or by another program since you opened it here. Nothing is lost yet: which of the two shall stay?',
    theirs: 'Take theirs',
    both: 'Keep both',
    mine: 'Keep mine',
  },
  left: {
    header: 'Not saved last time',
    says: 'has work of yours from an earlier visit that was never saved, and the same was changed elsewhere since. Nothing is lost yet: which of the two shall stay?',
    theirs: 'Take theirs',
    both: 'Keep both',
    mine: 'Keep mine',
  },
  gone: {
    header: 'Deleted elsewhere',
    says: 'was deleted in another window or by another program. What you did since is still here: what shall become of it?',
    theirs: 'Let it go',
    both: 'Keep it as a new one',
    mine: 'Bring it back',
  },
}
const open = computed(() => !!question.value)
const word = computed(() => words[question.value?.kind ?? 'changed'])
</script>

<template>
  <Dialog
    :visible="open"
    modal
    :closable="false"
    :close-on-escape="false"
    :header="word.header"
    :style="{ width: 'min(34rem, 94vw)' }"
  >
    <p>
      <b>{{ question?.what }}</b> {{ word.says }}
    </p>
    <p v-if="question?.differs" class="differs">They differ in {{ question.differs }}.</p>
    <footer>
      <Button :label="word.theirs" variant="outlined" @click="question?.decide('theirs')" />
      <Button v-if="question?.both" :label="word.both" variant="outlined" @click="question?.decide('both')" />
      <Button :label="word.mine" autofocus @click="question?.decide('mine')" />
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
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 0.75rem;
}
</style>
