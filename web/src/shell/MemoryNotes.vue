<script setup lang="ts">
/* What this browser cannot promise, that other data is open now, and work that nobody has in hand: in words, at the top. */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import Button from 'primevue/button'
import { asNew, canBeNew, isHere, kindOf } from '../api/offers'
import { differences } from '../document/merge'
import { trust } from '../memory/browser'
import { trouble as entriesTrouble } from '../memory/entries'
import { here } from '../memory/here'
import { letGo, offers, type Offer } from '../memory/unsent'
import { was } from './was'

const router = useRouter()
const seen = ref<string[]>([])
const see = (id: string) => (seen.value = [...seen.value, id])
watch(trust, () => (seen.value = seen.value.filter((s) => s !== 'trust')))
watch(
  () => here.turned,
  () => (seen.value = seen.value.filter((s) => s !== 'turned')),
)
const says = computed(() => {
  const list: { id: string; text: string }[] = []
  if (trust.value === 'keeps nothing')
    list.push({
      id: 'trust',
      text: 'This browser keeps nothing for Undaris: a private window, or its site data are blocked. Everything works and is saved in Undaris as you go; but what is not saved yet is lost when this page is closed, and choices are forgotten.',
    })
  if (trust.value === 'is full')
    list.push({
      id: 'trust',
      text: 'This browser has no room left. What is saved in Undaris is safe; what is not saved yet is lost when this page is closed. Make room, or leave the page open until it is saved.',
    })
  if (was)
    list.push({
      id: 'was',
      text: `Another program is at ${was} now, where Undaris was, so Undaris is here from now on. What this browser had not saved there yet waits there, and is sent when Undaris is at that address again.`,
    })
  if (here.turned)
    list.push({
      id: 'turned',
      text: 'Something else is open in Undaris now: a backup was restored, or other data is served here. This page shows what is there.',
    })
  if (entriesTrouble.value) list.push({ id: entriesTrouble.value, text: entriesTrouble.value })
  return list.filter((s) => !seen.value.includes(s.id))
})
const list = computed(() => offers.value.filter((o) => !seen.value.includes(o.slot.id)))
const titleOf = ({ slot, mine }: Offer) => (mine as { title?: string }).title || slot.title || 'without a title'
const day = (at: number) => new Date(at).toLocaleString('en', { dateStyle: 'medium', timeStyle: 'short' })
function origin(o: Offer) {
  if (!o.slot.database) return 'by an older Undaris, which did not note in which data'
  return isHere(o) ? `on ${day(o.slot.at)}` : `in other data than what is open now, on ${day(o.slot.at)}`
}
const changes = ({ mine, ground }: Offer) => ground && differences(mine, ground)

const trouble = ref('')
async function keepNew(o: Offer) {
  trouble.value = ''
  try {
    await router.push(await asNew(o))
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <section v-if="says.length || list.length || trouble" class="notes" aria-label="what is not saved">
    <div v-for="s in says" :key="s.id" class="note" role="status">
      <p>{{ s.text }}</p>
      <Button label="I see" size="small" variant="outlined" @click="see(s.id)" />
    </div>
    <div v-for="o in list" :key="o.slot.id" class="note" role="group" :aria-label="`not saved: ${titleOf(o)}`">
      <p>
        Work on {{ kindOf(o.slot.path)?.word ?? 'a setting' }} <b>“{{ titleOf(o) }}”</b> was never saved. It was done
        {{ origin(o) }}<template v-if="changes(o)">, and changes {{ changes(o) }}</template
        >.
      </p>
      <span class="do">
        <Button
          v-if="isHere(o) && kindOf(o.slot.path)?.id"
          as="router-link"
          label="Open it"
          size="small"
          :to="kindOf(o.slot.path)!.place(kindOf(o.slot.path)!.id)"
        />
        <Button v-if="canBeNew(o)" label="Keep it as a new one" size="small" variant="outlined" @click="keepNew(o)" />
        <Button label="Let it go" size="small" variant="text" @click="letGo(o.slot.id)" />
        <Button label="Later" size="small" variant="text" @click="see(o.slot.id)" />
      </span>
    </div>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.notes {
  display: grid;
  gap: 0.25rem;
  max-height: 40vh;
  overflow: auto;
  background: var(--lit);
}

.note {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
  padding: 0.5rem 1rem;
}

p {
  flex: 1 1 24rem;
  margin: 0;
}

.do {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

.trouble {
  padding: 0 1rem 0.5rem;
  color: var(--danger);
  font-weight: 600;
}

@media print {
  .notes {
    display: none;
  }
}
</style>
