<script setup lang="ts" generic="T extends { trials: number; right: number; success: number; last: string }">
/* Rows and columns of what was asked: how well each goes, in tenths. */
import MusicText from '../../../music/MusicText.vue'
import { engrave } from '../../../music/text'
import PressButton from '../../../shell/PressButton.vue'
import { ink, tenths, told } from './tenths'

defineProps<{
  label: string
  rows: string[]
  columns: string[]
  cell: (row: number, column: number) => T | undefined
  chosen?: T
}>()
const emit = defineEmits<{ choose: [cell: T, name: string] }>()
</script>

<template>
  <table :aria-label="label">
    <thead>
      <tr>
        <td />
        <th v-for="c in columns" :key="c" scope="col"><MusicText :symbol="c" /></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(r, i) in rows" :key="r">
        <th scope="row"><MusicText :symbol="r" /></th>
        <td v-for="(c, k) in columns" :key="c">
          <PressButton
            v-if="cell(i, k)"
            :class="{ chosen: cell(i, k) === chosen }"
            :aria-label="told(`${engrave(r)}, ${engrave(c)}`, cell(i, k)!)"
            :title="told(`${engrave(r)}, ${engrave(c)}`, cell(i, k)!)"
            :style="{ background: ink(cell(i, k)!.success) }"
            @click="emit('choose', cell(i, k)!, `${engrave(r)}, ${engrave(c)}`)"
          >
            {{ tenths(cell(i, k)!.success) }}
          </PressButton>
          <span v-else class="none">–</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: separate;
  border-spacing: 2px;
  width: 100%;
  max-width: 30rem;
}

th {
  font-weight: 400;
  color: var(--soft);
  font-size: var(--text-s);
  padding: 0 0.4rem;
  text-align: center;
}

th[scope='row'] {
  text-align: right;
  white-space: nowrap;
}

td {
  text-align: center;
}

button {
  width: 100%;
  min-width: 2rem;
  min-height: 2rem;
  border: 1px solid var(--rule);
  border-radius: 4px;
  color: var(--paper);
  font: inherit;
  font-weight: 600;
  cursor: pointer;
}

button:hover,
button.chosen {
  outline: 3px solid var(--lit-rule);
}

.none {
  color: var(--soft);
}
</style>
