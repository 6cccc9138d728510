<script setup lang="ts">
/* What calls may ask: folded to one button that tells what was chosen, and opened to all of it. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Popover from '../../shell/ThePopover.vue'
import Select from 'primevue/select'
import MusicText from '../../music/MusicText.vue'
import type { useCallWish } from './useCallWish'

const props = defineProps<{ choice: ReturnType<typeof useCallWish> }>()
const panel = ref<InstanceType<typeof Popover>>()
const open = ref(false)
const says = computed(() => props.choice.narrowed.value.join(' · ') || 'anything')
</script>

<template>
  <Button
    variant="outlined"
    class="asked"
    aria-haspopup="dialog"
    :aria-expanded="open"
    title="what is asked, and where"
    @click="panel?.toggle($event)"
  >
    <span>Asked</span> <b><MusicText :said="says" /></b><i class="pi pi-angle-up" />
  </Button>
  <Popover ref="panel" label="what is asked" @show="open = true" @hide="open = false">
    <div class="choice">
      <label v-for="f in choice.fields" :key="f.name">
        <span>{{ f.label }}</span>
        <Select
          v-model="f.value.value"
          :options="f.options.value"
          option-label="name"
          option-value="id"
          :aria-label="f.label"
          append-to="self"
        />
      </label>
      <Button label="Ask anything" variant="text" :disabled="!choice.narrowed.value.length" @click="choice.clear" />
    </div>
  </Popover>
</template>

<style scoped>
.asked {
  max-width: min(34rem, 100%);
}

.asked span {
  color: var(--soft);
}

.asked b {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.choice {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.6rem 0.9rem;
  width: min(30rem, 80vw);
}

label {
  display: grid;
  gap: 0.2rem;
  min-width: 0;
}

label :deep(.p-select) {
  width: 100%;
  min-width: 0;
}

label > span {
  color: var(--soft);
  font-size: var(--text-s);
}
</style>
