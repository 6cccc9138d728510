<script setup lang="ts">
/* A line stays as it was written for its instrument; with another in hand that is said, and it can be laid on it. */
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import { askLine } from '../../api/kept'
import { usePlayer } from '../../api/queries'
import MusicText from '../../music/MusicText.vue'
import type { Study } from '../../api/client'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState }>()
const player = usePlayer()
const other = computed(() => {
  const l = props.state.line.value
  const p = player.data.value
  return !!l?.tuning && !!p && (l.tuning !== p.tuning || (l.capo ?? 0) !== p.capo)
})
const open = computed(() => props.state.line.value?.tuning?.replace(/\d/g, '').replaceAll(',', ' ') ?? '')
const laid = ref<{ study: Study; says: string }>()
/* What was worked out holds for the line as it was. */
watch(props.state.line, () => (laid.value = undefined))
async function ask() {
  try {
    laid.value = await askLine.lay(props.state.line.value!)
  } catch (e) {
    props.state.refuse(e)
  }
}
function lay() {
  const study = laid.value!.study
  laid.value = undefined
  void props.state.take(Promise.resolve(study), 'laying it on my instrument')
}
</script>

<template>
  <div v-if="other" class="instrument" role="status">
    <template v-if="laid">
      <span>On your instrument {{ laid.says }}.</span>
      <Button label="Lay it" size="small" @click="lay" />
      <Button label="Leave it" size="small" variant="text" @click="laid = undefined" />
    </template>
    <template v-else>
      <span>
        Written for strings tuned <b><MusicText :symbol="open" /></b
        ><template v-if="state.line.value?.capo">, capo at fret {{ state.line.value.capo }}</template
        >; you have another instrument in hand. It is shown as it was written.
      </span>
      <Button label="Lay it on my instrument" size="small" variant="outlined" @click="ask" />
    </template>
  </div>
</template>

<style scoped>
.instrument {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  margin: 0.25rem 0 0.5rem;
}

.instrument span {
  flex: 0 1 auto;
}

.instrument :deep(button) {
  flex: none;
}

@media print {
  .instrument {
    display: none;
  }
}
</style>
