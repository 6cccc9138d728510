<script setup lang="ts">
/* The instruments a player keeps: one is taken in hand, the one in hand is kept by a name. */
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import type { Player } from '../api/client'
import FieldRow from './FieldRow.vue'
import PressButton from './PressButton.vue'

const form = defineModel<Player>({ required: true })
const kept = computed(() => form.value.instruments ?? [])
type Kept = (typeof kept.value)[number]
const name = ref('')
const here = ({ name, tuning, frets, scale, capo, left }: Kept) =>
  !!name && [tuning, frets, scale, capo, left].join() === [form.value.tuning, form.value.frets, form.value.scale, form.value.capo, form.value.left].join() // prettier-ignore
function take({ tuning, frets, scale, capo, left }: Kept) {
  form.value = { ...form.value, tuning, frets, scale, capo, left }
}
function keep() {
  const called = name.value.trim()
  if (!called) return
  const { tuning, frets, scale, capo, left } = form.value
  const others = kept.value.filter((k) => k.name !== called)
  form.value = { ...form.value, instruments: [...others, { name: called, tuning, frets, scale, capo, left }] }
  name.value = ''
}
const forget = (called: string) =>
  (form.value = { ...form.value, instruments: kept.value.filter((k) => k.name !== called) })
</script>

<template>
  <FieldRow label="Instruments" for="instrument-name" hint="those you keep">
    <div class="kept">
      <span v-for="k in kept" :key="k.name" class="one">
        <PressButton :aria-pressed="here(k)" :title="`${k.tuning}, ${k.frets} frets`" @click="take(k)">{{
          k.name
        }}</PressButton>
        <PressButton :aria-label="`forget ${k.name}`" title="forget it" @click="forget(k.name)">
          <i class="pi pi-times" />
        </PressButton>
      </span>
      <InputText
        id="instrument-name"
        v-model="name"
        maxlength="60"
        size="small"
        placeholder="a name for the one below"
        @keydown.enter.prevent="keep"
      />
      <Button type="button" label="Keep it" size="small" variant="outlined" :disabled="!name.trim()" @click="keep" />
    </div>
  </FieldRow>
</template>

<style scoped>
.kept {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
}

.one {
  display: inline-flex;
  border: 1px solid var(--ghost);
  border-radius: var(--round);
  overflow: hidden;
}

.one button {
  min-height: var(--target);
  min-width: 2.25rem;
  padding: 0 0.7rem;
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
}

.one button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}
</style>
