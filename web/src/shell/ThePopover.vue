<script setup lang="ts">
/* What opens beside a button: a dialog with a name, which takes the focus and gives it back. */
import { nextTick, useTemplateRef } from 'vue'
import Popover from 'primevue/popover'

defineProps<{ label: string }>()
const emit = defineEmits<{ show: []; hide: [] }>()
const inner = useTemplateRef<InstanceType<typeof Popover> & { container: HTMLElement | null }>('inner')
let opener: HTMLElement | null = null

function toggle(event: Event, target?: unknown) {
  opener = (target ?? event.currentTarget) as HTMLElement
  inner.value?.toggle(event, target as HTMLElement)
}
async function shown() {
  emit('show')
  await nextTick()
  const all = 'button, input, select, textarea, a[href], [tabindex]'
  const first = [...(inner.value?.container?.querySelectorAll<HTMLElement>(all) ?? [])].find(
    (e) => e.tabIndex >= 0 && !e.matches('[disabled], .p-hidden-focusable') && !e.closest('.p-hidden-accessible'),
  )
  first?.focus({ preventScroll: true })
}
function hidden() {
  emit('hide')
  // Who pressed something else meanwhile is there already.
  const at = document.activeElement
  if (!at || at === document.body || !at.isConnected) opener?.focus({ preventScroll: true })
}
defineExpose({ toggle, hide: () => inner.value?.hide() })
</script>

<template>
  <Popover ref="inner" :aria-label="label" @show="shown" @hide="hidden"><slot /></Popover>
</template>
