<script setup lang="ts">
import Dialog from 'primevue/dialog'
import PlaceHelp from './PlaceHelp.vue'
import WaysIn from '../ways/WaysIn.vue'
import NetworkCard from '../together/NetworkCard.vue'
import { isDevice } from '../together/following'
import BackupCard from './BackupCard.vue'
import KeysCard from './KeysCard.vue'
import PedalsCard from './PedalsCard.vue'
import MarkLegend from '../music/MarkLegend.vue'
import { computed } from 'vue'
import { useCatalogue } from '../api/queries'
import { aloud, commands, face, rooms, type Command, type CommandId } from './commands'
import { keysOf, useKeys } from './keys'

const open = defineModel<boolean>({ required: true })
const catalogue = useCatalogue()
const keys = useKeys()
/* The ways to play a note are the core's to list. */
const groups = computed(() => {
  const ways = (catalogue.data.value?.ways ?? []).map((w): Command => ({ room: 'line', keys: [w.key], name: w.name }))
  const own = (Object.keys(commands) as CommandId[]).map((id): Command => ({
    ...commands[id],
    keys: keysOf(id, keys.value),
  }))
  const all: Command[] = [...own, ...ways]
  return Object.entries(rooms).map(([room, name]) => ({ name, keys: all.filter((c) => c.room === room) }))
})
/** Ten figures are told by the first and the last. */
const shown = (keys: string[]) => (keys.length > 4 ? [keys[0]!, '…', keys.at(-1)!] : keys)
</script>

<template>
  <Dialog v-model:visible="open" modal header="Help" :style="{ width: 'min(44rem, 94vw)' }" dismissable-mask>
    <WaysIn @begun="open = false" />
    <PlaceHelp />
    <h2>Backup</h2>
    <p v-if="isDevice">
      This device follows the laptop, where Undaris runs. Backups are made and restored there; files are brought there,
      and there it is said who plays and who may come in. It goes on the home screen only where its browser trusts the
      certificate; otherwise it is an ordinary page, and works all the same.
    </p>
    <BackupCard v-else @restored="open = false" />
    <template v-if="!isDevice">
      <h2>Phone or tablet on the stand</h2>
      <NetworkCard />
    </template>
    <section v-for="group in groups" :key="group.name">
      <h2>{{ group.name }}</h2>
      <dl>
        <template v-for="k in group.keys" :key="k.name">
          <dt>
            <kbd v-for="key in shown(k.keys)" :key="key" :aria-label="aloud(key)">{{ face(key) }}</kbd>
          </dt>
          <dd>{{ k.name }}</dd>
        </template>
      </dl>
    </section>
    <h2>Letters</h2>
    <KeysCard />
    <h2>Pedals</h2>
    <PedalsCard />
    <h2>Marks</h2>
    <MarkLegend />
    <h2>Cautions</h2>
    <p>
      Wide stretches on low frets strain the hand: warm up, start higher on the neck, keep the wrist easy, stop on pain
      or numbness and see a clinician if it lasts. Take a short break about every 20 to 25 minutes. Loud practice harms
      hearing, from amplifiers and headphones alike: keep the level where talk is possible, and rest the ears.
    </p>
    <p>
      How they were worked out: a stretch is measured in millimetres between the frets of the first and the last finger,
      from your scale length, and told where it is wider than the reach you gave under Neck. The plan puts a rest of two
      minutes where more than 22 were played. Breaks and loudness are usual advice to players, not medicine: Undaris
      measures neither your hand nor your ears.
    </p>
    <h2>Licences</h2>
    <p>
      Undaris is free software under the MIT licence, and carries the work of others:
      <a href="/notice.txt" target="_blank" rel="noopener">their names and licences</a>.
    </p>
  </Dialog>
</template>

<style scoped>
h2 {
  font-size: var(--text-l);
  margin: 1rem 0 0.4rem;
}

dl {
  display: grid;
  grid-template-columns: 11.5rem 1fr;
  gap: 0.5rem 1rem;
  margin: 0;
}

dt {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

dd {
  margin: 0;
}

kbd {
  white-space: nowrap;
  font: 600 var(--text-s) var(--font-text);
  border: 1px solid var(--ghost);
  border-bottom-width: 3px;
  border-radius: 6px;
  padding: 0.1rem 0.5rem;
  background: var(--paper);
}
</style>
