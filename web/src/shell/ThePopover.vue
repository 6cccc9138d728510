<script setup lang="ts">
/* What opens beside a button: a dialog with a name, which takes the focus and gives it back. */
import { nextTick, useTemplateRef } from 'vue'
import Popover from 'primevue/popover'

defineProps<{ label: string }>()
const emit = defineEmits<{ show: []; hide: [] }>()
const inner = useTemplateRef<InstanceType<typeof Popover>>('inner')
const content = useTemplateRef('content')
let opener: HTMLElement | null = null

function toggle(event: Event, target?: unknown) {
  opener = (target ?? event.currentTarget) as HTMLElement
  inner.value?.toggle(event, target as HTMLElement)
}
const all = 'button, input, select, textarea, a[href], [tabindex]'
/** What is in it may come a little later than it opens. */
async function shown() {
  emit('show')
  for (let tries = 0; tries < 60; tries++) {
    await nextTick()
    const inside = [...(content.value?.querySelectorAll<HTMLElement>(all) ?? [])]
    const first = inside.find((e) => e.tabIndex >= 0 && !e.matches('[disabled]'))
    if (first) return first.focus({ preventScroll: true })
    await new Promise(requestAnimationFrame)
  }
}
function hidden() {
  emit('hide')
  // Who pressed something else meanwhile is there already.
  const at = document.activeElement
  if (!at || at === document.body || !at.isConnected) opener?.focus({ preventScroll: true })
}
/** A list that is open in it closes first; one that is not keeps Escape from nobody. */
function away(e: KeyboardEvent) {
  if (document.querySelector('.p-select-overlay, .p-multiselect-overlay')) return
  e.stopPropagation()
  inner.value?.hide()
  opener?.focus({ preventScroll: true })
}
defineExpose({ toggle, hide: () => inner.value?.hide() })
</script>

<template>
  <Popover ref="inner" :aria-label="label" @show="shown" @hide="hidden"
    ><div ref="content" @keydown.esc.capture="away"><slot /></div
  ></Popover>
</template>
