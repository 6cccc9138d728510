<script setup lang="ts">
/* Licks that come without a chord: over which they lie, and why. */
import { computed } from 'vue'
import type { Brought } from '../api/client'
import { engrave } from '../music/text'
import SelectRow from '../shell/SelectRow.vue'

const props = defineProps<{ over: NonNullable<Brought['over']> }>()
defineEmits<{ take: [chord: string] }>()
const options = computed(() => props.over.map((o) => ({ name: `${engrave(o.chord)}: ${o.why}`, value: o.chord })))
const read = computed(() => props.over.find((o) => o.read)?.chord ?? '')
</script>

<template>
  <SelectRow
    id="import-over"
    :model-value="read"
    label="Over"
    :options="options"
    @update:model-value="$emit('take', $event)"
  />
</template>
