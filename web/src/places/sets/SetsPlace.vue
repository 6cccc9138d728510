<script setup lang="ts">
/* The evenings' lists. */
import { useTitle } from '@vueuse/core'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import { useFoundSets, useSetChanges } from '../../api/sets'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import ShelfPlace from '../../shell/ShelfPlace.vue'
import ShelfRow from '../../shell/ShelfRow.vue'

useTitle('Sets · Undaris')
const router = useRouter()
const sought = ref('')
const sets = useFoundSets(() => ({ find: sought.value }))
const changes = useSetChanges()
async function begin() {
  const made = await changes.create.mutateAsync({ title: 'New set', items: [] })
  await router.push({ name: 'set', params: { id: made.id } })
}
</script>

<template>
  <ShelfPlace v-if="sets.rows" v-model="sought" title="Sets" one="set" by="title" :found="sets">
    <template #begin>
      <Button as="router-link" :to="{ name: 'charts' }" label="Charts" variant="outlined" />
      <Button icon="pi pi-plus" label="New set" @click="begin" />
    </template>
    <template #default="{ item: s }">
      <ShelfRow
        :to="{ name: 'set', params: { id: s.id } }"
        of=""
        :name="s.title"
        :about="s.problem ?? `${s.charts} ${s.charts === 1 ? 'chart' : 'charts'}`"
        :begins="[]"
      >
        <Button variant="text" icon="pi pi-trash" :aria-label="`delete ${s.title}`" @click="changes.remove(s)" />
      </ShelfRow>
    </template>
    <template #empty>
      <EmptyPlace
        title="No sets yet"
        text="A set is what is played in an evening: charts in their order, each so many times, and the band goes on from one to the next."
      >
        <Button label="Make a set" @click="begin" />
      </EmptyPlace>
    </template>
  </ShelfPlace>
  <EmptyPlace v-else-if="sets.error" title="No answer" :text="sets.error.message" />
</template>
