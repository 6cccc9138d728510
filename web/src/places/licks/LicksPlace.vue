<script setup lang="ts">
/* The shelf: every lick as a small staff. */
import { useTitle } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Menu from 'primevue/menu'
import type { MenuItem } from 'primevue/menuitem'
import { answer, api } from '../../api/client'
import { together } from '../../api/found'
import { useFoundLicks, useLickTags } from '../../api/kept'
import { useWriting } from '../../band/useWriting'
import EmptyPlace from '../../shell/EmptyPlace.vue'
import BringDialog from '../../making/BringDialog.vue'
import { leavings } from '../../making/leavings'
import LickCard from './LickCard.vue'
import LickDialog from '../../making/LickDialog.vue'
import PressButton from '../../shell/PressButton.vue'
import SegmentedChoice from '../../shell/SegmentedChoice.vue'
import { useAddress } from '../../shell/useAddress'
import { useGrowing } from '../../shell/useGrowing'

useTitle('Licks · Undaris')
const address = useAddress()
const sought = address.text('find')
const tag = address.text('tag')
/* The one changed last first, or the easiest, or by where they begin. */
const orders = [
  { id: 'latest', name: 'latest' },
  { id: 'easiest', name: 'easiest' },
  { id: 'hardest', name: 'hardest' },
  { id: 'begins', name: 'by beginning' },
] as const
const order = address.oneOf('order', ['latest', 'easiest', 'hardest', 'begins'])
const licks = useFoundLicks(() => ({
  find: sought.value,
  tag: tag.value,
  order: order.value === 'latest' ? '' : order.value,
}))
const shelf = useLickTags()
const shown = computed(() => licks.rows ?? [])
const foot = useTemplateRef<HTMLElement>('foot')
const cards = useGrowing(shown, foot, [sought, tag, order], () => licks.more())
const making = ref(false)
const bringing = ref(false)
/* What is shown leaves as one file, a heading for each. */
const most = together
const files = ref<InstanceType<typeof Menu>>()
const writing = useWriting()
const leaves = computed(() =>
  leavings
    .map(({ label, kind }): MenuItem => ({
      label,
      url: `/api/licks/files/${kind}?${shown.value.map((l) => `id=${l.id}`).join('&')}`,
    }))
    .concat({
      label: 'WAV, with the band',
      command: () => {
        const id = shown.value.map((l) => l.id)
        void writing.save({
          title: id.length > 1 ? `${id.length} licks` : shown.value[0]!.title,
          load: () =>
            answer<ArrayBuffer>(
              api.GET('/api/licks/files/{format}', {
                params: { path: { format: 'midi' }, query: { id, choruses: 1, ending: 'own' } },
                parseAs: 'arrayBuffer',
              }),
            ),
        })
      },
    }),
)
</script>

<template>
  <div v-if="licks.rows && shelf.data.value" class="licks">
    <header>
      <h1>Licks</h1>
      <InputText v-model="sought" placeholder="title, tag, chord, lands on 3, leans on 9" aria-label="find a lick" />
      <SegmentedChoice v-model="order" :options="[...orders]" label="in which order" />
      <Button label="Import" icon="pi pi-upload" variant="outlined" @click="bringing = true" />
      <Button
        label="Export"
        icon="pi pi-download"
        variant="outlined"
        aria-haspopup="menu"
        :disabled="!licks.total || licks.total > most"
        :title="licks.total > most ? `at most ${most} at once; find fewer` : `the ${licks.total} that are shown`"
        @click="files?.toggle($event)"
      />
      <Menu ref="files" :model="leaves" popup />
      <Button label="New lick" icon="pi pi-plus" @click="making = true" />
    </header>
    <nav v-if="shelf.data.value.tags.length" class="tags" aria-label="tags">
      <PressButton :class="{ on: !tag }" :aria-pressed="!tag" @click="tag = ''">
        all {{ shelf.data.value.total }}
      </PressButton>
      <PressButton
        v-for="t in shelf.data.value.tags"
        :key="t.name"
        :class="{ on: tag === t.name }"
        :aria-pressed="tag === t.name"
        @click="tag = tag === t.name ? '' : t.name"
      >
        {{ t.name }} {{ t.n }}
      </PressButton>
    </nav>
    <ul v-if="shown.length">
      <LickCard v-for="l in cards" :key="l.id" :lick="l" />
    </ul>
    <p v-if="cards.length < licks.total" ref="foot" class="none">{{ cards.length }} of {{ licks.total }}</p>
    <p v-if="!licks.total && !licks.empty" class="none">No lick on the shelf answers to that.</p>
    <EmptyPlace
      v-if="licks.empty"
      title="The shelf is empty"
      text="A lick is a phrase kept as degrees, so that it can be moved to any chord, key and position. Type one, or keep one from a line."
    >
      <Button label="Make a lick" @click="making = true" />
    </EmptyPlace>
    <LickDialog v-model="making" />
    <BringDialog v-model="bringing" as="licks" />
  </div>
  <EmptyPlace v-else-if="licks.error" title="No answer" :text="licks.error.message" />
</template>

<style scoped>
.licks {
  padding: 1rem 1.25rem 2rem;
}

header {
  display: flex;
  align-items: center;
  gap: 1rem;
  flex-wrap: wrap;
}

h1 {
  font-size: 2rem;
  flex: 1;
}

header :deep(input) {
  width: 21rem;
}

.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0.75rem 0 1rem;
}

.tags button {
  min-height: var(--target);
  padding: 0 0.85rem;
  border: 1px solid var(--ghost);
  border-radius: 999px;
  background: none;
  color: inherit;
  cursor: pointer;
}

.tags .on {
  background: var(--ink);
  color: var(--paper);
  font-weight: 700;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(25rem, 100%), 1fr));
  gap: 1rem;
}

.none {
  color: var(--soft);
}
</style>
