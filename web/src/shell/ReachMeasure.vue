<script setup lang="ts">
/* The widest easy stretch of a hand, found on the player's own instrument. */
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import InputNumber from 'primevue/inputnumber'
import { answer, api, type Player } from '../api/client'
import PressButton from './PressButton.vue'

const comfort = defineModel<number>({ required: true })
const props = defineProps<{ neck: Pick<Player, 'tuning' | 'frets' | 'scale' | 'capo'> }>()
const from = ref(5)
const query = computed(() => {
  const { tuning, frets, scale, capo } = props.neck
  return { tuning, frets, scale, capo, from: from.value }
})
const reaches = useQuery({
  queryKey: ['reach', query],
  queryFn: () => answer(api.GET('/api/reach', { params: { query: query.value } })),
  retry: false,
})
</script>

<template>
  <details class="measure">
    <summary>Measure it on this instrument</summary>
    <p>
      Warm up first. Lay your first finger on fret
      <InputNumber
        v-model="from"
        input-id="reach-from"
        :min="1"
        :max="20"
        size="small"
        aria-label="first finger on fret"
      />
      of a middle string and your fourth finger beside it; stretch only as far as it stays easy, and stop where it
      pulls. Which fret does the fourth finger hold without effort?
    </p>
    <p class="frets" role="group" aria-label="fret of the fourth finger">
      <PressButton
        v-for="r in reaches.data.value ?? []"
        :key="r.fret"
        :aria-pressed="Math.abs(comfort - r.mm) < 0.5"
        @click="comfort = Math.round(r.mm)"
      >
        {{ r.fret }} <small>{{ Math.round(r.mm) }} mm</small>
      </PressButton>
    </p>
    <p v-if="reaches.error.value" role="status">{{ reaches.error.value.message }}</p>
  </details>
</template>

<style scoped>
.measure {
  grid-column: 1 / -1;
}

.measure :deep(.p-inputnumber-input) {
  width: 3.4rem;
}

.frets {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin-top: 0.5rem;
}

.frets button {
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}

.frets button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--paper);
}

small {
  font-weight: 400;
}
</style>
