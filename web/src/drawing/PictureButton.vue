<script setup lang="ts">
/* What is drawn leaves as a picture. */
import { useTemplateRef } from 'vue'
import Button from 'primevue/button'
import { useToast } from 'primevue/usetoast'
import { save } from '../shell/save'
import { useOpener } from '../shell/later'
import { Menu } from '../shell/parts'

const { of, title, small } = defineProps<{
  /** What is drawn, on the page. */
  of: () => Element | null | undefined
  title: string
  /** Small, beside a drawing. */
  small?: boolean
}>()
const toast = useToast()
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu')
const open = useOpener(menu)

async function leave(kind: 'svg' | 'png' | 'paper') {
  const root = of()
  if (!root) return
  try {
    const { asPNG, asSVG, onPaper } = await import('./leave')
    if (kind === 'paper') await onPaper(root)
    else save(await (kind === 'svg' ? asSVG(root) : asPNG(root)), title, kind)
  } catch (e) {
    toast.add({
      severity: 'error',
      summary: `The picture could not be made (${e instanceof Error ? e.message : String(e)}).`,
      life: 8000,
    })
  }
}
const kinds = [
  { label: 'SVG, which stays sharp at any size', command: () => void leave('svg') },
  { label: 'PNG, twice as fine as the screen', command: () => void leave('png') },
  ...(small ? [{ label: 'On paper, by itself', command: () => void leave('paper') }] : []),
]
</script>

<template>
  <Button
    :label="small ? undefined : 'Picture'"
    :aria-label="small ? `${title} as a picture` : undefined"
    :title="small ? 'as a picture' : undefined"
    icon="pi pi-image"
    :variant="small ? 'text' : 'outlined'"
    aria-haspopup="menu"
    @click="open"
  />
  <Menu ref="menu" :model="kinds" popup />
</template>
