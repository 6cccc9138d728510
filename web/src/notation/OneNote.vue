<script setup lang="ts">
/* One note on its staff, large: clef, key signature, head. It sounds an octave lower, as guitars and basses are written. */
import { Accidental, Formatter, Renderer, Stave, StaveNote, Voice } from 'vexflow/bravura'
import { ref, useTemplateRef, watchPostEffect } from 'vue'
import { key, signatures } from './breaking'

const props = defineProps<{
  /** with its octave, as it sounds */
  note: string
  bass: boolean
  /** sharps, or flats below 0 */
  signature: number
}>()
const box = useTemplateRef<HTMLElement>('box')
const scale = 1.7
const size = { width: 190, height: 130 }

/* What is drawn before its font is there is measured by another. */
const ready = ref(false)
void document.fonts.load('30px Bravura').finally(() => (ready.value = true))

watchPostEffect(() => {
  const into = box.value
  if (!into || !ready.value) return
  into.replaceChildren()
  const renderer = new Renderer(into as HTMLDivElement, Renderer.Backends.SVG)
  renderer.resize(size.width * scale, size.height * scale)
  const context = renderer.getContext()
  context.scale(scale, scale)
  const clef = props.bass ? 'bass' : 'treble'
  const spec = signatures[props.signature + 7]!
  const stave = new Stave(4, 5, size.width - 8)
  stave.addClef(clef, 'default', '8vb').addKeySignature(spec).setContext(context).draw()
  stave.setNoteStartX(stave.getNoteStartX() + 12) // a head is not to touch the clef
  const k = key(props.note)
  const head = new StaveNote({ keys: [`${k.letter}${k.accidental}/${k.octave}`], duration: 'w', clef })
  const voice = new Voice({ numBeats: 4, beatValue: 4 }).addTickables([head])
  Accidental.applyAccidentals([voice], spec)
  new Formatter().joinVoices([voice]).format([voice], 60)
  voice.draw(context, stave)
})
</script>

<template>
  <div ref="box" class="note" role="img" aria-label="a note on the staff" />
</template>

<style scoped>
.note :deep(svg) {
  display: block;
  max-width: 100%;
  height: auto;
  overflow: visible;
}

.note :deep(text),
.note :deep(rect),
.note :deep(path[stroke='none']) {
  fill: var(--ink);
  stroke: none;
}

.note :deep(path:not([stroke='none'])) {
  fill: none;
  stroke: var(--ink);
}

.note :deep(.vf-stave path) {
  stroke: var(--ghost);
}
</style>
