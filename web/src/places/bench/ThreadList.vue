<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import MarkBadge from '../../music/MarkBadge.vue'
import MusicText from '../../music/MusicText.vue'
import { engrave } from '../../music/text'
import type { Bench } from './useBench'

/* The whole thread as a list to read and to copy. */
const props = defineProps<{ bench: Bench }>()
const open = defineModel<boolean>({ required: true })
const copied = ref('')
const move = (n: number) => (n === 0 ? 'stays' : `${n > 0 ? 'up' : 'down'} ${Math.abs(n)}`)
const rows = computed(() =>
  (props.bench.thread.value?.targets ?? []).map((t) => {
    const s = props.bench.steps.value[t.step]!
    const beat = s.beat > 1 ? `.${s.beat}` : ''
    return { ...t, where: `${s.bar + 1}${beat}`, chord: props.bench.data.value!.chords[s.chord]!.symbol }
  }),
)
const text = computed(() =>
  rows.value
    .map((r) =>
      [
        ...[r.where, engrave(r.chord), `${r.string}:${r.fret}`, engrave(r.degree), engrave(r.note), move(r.move)],
        r.led ? `${engrave(r.led.below.note)} ${engrave(r.led.above.note)}` : '',
      ].join('\t'),
    )
    .join('\n'),
)
async function copy() {
  try {
    await navigator.clipboard.writeText(`bar\tchord\tplace\tdegree\tnote\tmove\tenclosed by\n${text.value}\n`)
    copied.value = 'Copied.'
  } catch {
    copied.value = 'The browser did not allow it. Select the list and copy it by hand.'
  }
}
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    header="The thread, target by target"
    :style="{ width: 'min(46rem, 94vw)' }"
    dismissable-mask
    @hide="copied = ''"
  >
    <table>
      <thead>
        <tr>
          <th>bar</th>
          <th>chord</th>
          <th>string:fret</th>
          <th>degree</th>
          <th>note</th>
          <th>half steps</th>
          <th>enclosed by</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(r, i) in rows" :key="i">
          <td>{{ r.where }}</td>
          <td><MusicText :symbol="r.chord" /></td>
          <td>{{ r.string }}:{{ r.fret }}</td>
          <td><MarkBadge :degree="r.degree" :size="24" /></td>
          <td><MusicText :symbol="r.note" /></td>
          <td>{{ move(r.move) }}<template v-if="r.pinned">, by hand</template></td>
          <td>
            <template v-if="r.led"
              ><MusicText :symbol="r.led.below.note" /> {{ r.led.below.string }}:{{ r.led.below.fret }},
              <MusicText :symbol="r.led.above.note" /> {{ r.led.above.string }}:{{ r.led.above.fret }}</template
            >
          </td>
        </tr>
      </tbody>
    </table>
    <template #footer>
      <span role="status">{{ copied }}</span>
      <Button icon="pi pi-copy" label="Copy" :disabled="!rows.length" @click="copy" />
    </template>
  </Dialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

th {
  text-align: left;
  color: var(--soft);
  font-weight: 400;
}

td,
th {
  border-bottom: 1px solid var(--rule);
  padding: 0.2rem 0.4rem;
}
</style>
