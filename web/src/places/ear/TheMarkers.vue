<script setup lang="ts">
/* Moments with names, and a remark of the player's own. */
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { clock } from '../../recording/inHand'
import { useCommand } from '../../shell/useCommands'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

const props = defineProps<{ work: RecordingWork; sound: RecordingSound }>()
const mark = useCommand('mark')
const list = () => props.work.hearing.value!.markers
const name = (i: number, title: string) => props.work.put('a name', { markers: list().map((m, j) => (j === i ? { ...m, title: title.trim() || m.title } : m)) }) // prettier-ignore
const drop = (i: number) => props.work.put('a marker gone', { markers: list().filter((_, j) => j !== i) })
</script>

<template>
  <section class="markers" aria-label="markers">
    <Button v-bind="mark" label="A marker here" icon="pi pi-flag" variant="outlined" />
    <ul>
      <li v-for="(m, i) in work.hearing.value!.markers" :key="`${m.at} ${i}`">
        <Button :label="clock(m.at)" variant="text" :aria-label="`go to ${m.title}`" @click="sound.seek(m.at)" />
        <InputText
          :model-value="m.title"
          size="small"
          maxlength="80"
          :aria-label="`name of the marker at ${clock(m.at)}`"
          @change="name(i, ($event.target as HTMLInputElement).value)"
        />
        <Button icon="pi pi-times" variant="text" :aria-label="`take ${m.title} out`" @click="drop(i)" />
      </li>
    </ul>
    <label for="remark">A remark</label>
    <textarea
      id="remark"
      rows="2"
      maxlength="1000"
      :value="work.body.value?.remark ?? ''"
      @change="work.record.change('a remark', { remark: ($event.target as HTMLTextAreaElement).value })"
    />
  </section>
</template>

<style scoped>
.markers {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
}

li {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}

label {
  color: var(--soft);
}

textarea {
  width: 100%;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--rule);
  border-radius: var(--round);
  padding: 0.4rem 0.6rem;
}
</style>
