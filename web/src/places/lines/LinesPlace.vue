<script setup lang="ts">
/* All lines; new ones are begun here, and files brought in. */
import { useTitle } from '@vueuse/core'
import { ref } from 'vue'
import Button from 'primevue/button'
import { useFoundLines, useLineChanges } from '../../api/kept'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import ShelfPlace from '../../shell/ShelfPlace.vue'
import ShelfRow from '../../shell/ShelfRow.vue'
import { useAddress } from '../../shell/useAddress'
import BringDialog from '../../making/BringDialog.vue'
import NewLineDialog from '../../making/NewLineDialog.vue'

useTitle('Lines · Undaris')
const sought = ref('')
const lines = useFoundLines(() => ({ find: sought.value }))
const changes = useLineChanges()
/* Come here from a plan, a melody over its chart is begun. */
const address = useAddress()
const over = Number(address.read('new')) || undefined
const making = ref(address.read('new') !== '')
const bringing = ref(false)
</script>

<template>
  <ShelfPlace
    v-if="lines.rows"
    v-model="sought"
    class="lines"
    title="Lines"
    one="line"
    by="title or key"
    :found="lines"
  >
    <template #begin>
      <Button label="Import" icon="pi pi-upload" variant="outlined" @click="bringing = true" />
      <Button label="New line" icon="pi pi-plus" @click="making = true" />
    </template>
    <template #default="{ item: l }">
      <ShelfRow
        :to="{ name: 'line', params: { id: l.id } }"
        :of="l.key"
        :name="l.title"
        :about="
          l.problem ?? `${l.bars} bars · ${l.notes} notes · frets ${l.low} to ${l.high} · ${l.tempo} beats a minute`
        "
      >
        <Button
          as="a"
          :href="`/api/lines/${l.id}/files/musicxml`"
          download
          variant="text"
          icon="pi pi-download"
          title="as MusicXML"
          :aria-label="`${l.title} as MusicXML`"
        />
        <Button variant="text" icon="pi pi-trash" :aria-label="`delete ${l.title}`" @click="changes.remove(l)" />
      </ShelfRow>
    </template>
    <template #empty>
      <EmptyPlace
        title="No lines yet"
        text="A line is a solo on staff and tablature over the chords of a chart: written by hand, from licks, or by what you ask for, and checked note by note."
      >
        <Button label="Begin a line" @click="making = true" />
      </EmptyPlace>
    </template>
    <template #dialogs>
      <NewLineDialog v-model="making" :of="over" />
      <BringDialog v-model="bringing" as="line" />
    </template>
  </ShelfPlace>
  <EmptyPlace v-else-if="lines.error" title="No answer" :text="lines.error.message" />
</template>
