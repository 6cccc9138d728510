<script setup lang="ts">
/* The log itself, the newest line first: any of it can be taken out, and put back. */
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import { useLogPage, useUnlog, type LogFilter } from '../../../api/log'
import MusicText from '../../../music/MusicText.vue'

const { filter } = defineProps<{ filter: LogFilter }>()
const few = 12
const shown = ref(few)
watch(
  () => filter,
  () => (shown.value = few),
)
const page = useLogPage(computed(() => ({ ...filter, limit: shown.value })))
const unlog = useUnlog()
const when = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
})
const kinds: Record<string, string> = { call: 'a call', take: 'a take', rung: 'a rung', skip: 'let go', ear: 'by ear' }
</script>

<template>
  <p v-if="page.data.value?.ahead" role="status">
    {{
      page.data.value.ahead === 1 ? 'One line bore a day to come' : `${page.data.value.ahead} lines bore a day to come`
    }}, since a clock ran ahead; they count as of the time before them.
  </p>
  <ol class="lines">
    <li v-for="r in page.data.value?.rows" :key="r.id">
      <time :datetime="r.at">{{ when.format(new Date(r.at)) }}</time>
      <small>{{ kinds[r.kind] }}</small>
      <MusicText :said="r.title" />
      <small>{{
        r.tempo ? `at ${r.tempo}` : r.kind === 'ear' ? `${Math.max(1, Math.round(r.seconds / 60))} min` : ''
      }}</small>
      <Button icon="pi pi-times" variant="text" :aria-label="`take ${r.title} out of the log`" @click="unlog(r)" />
    </li>
  </ol>
  <Button
    v-if="(page.data.value?.total ?? 0) > shown"
    :label="`Older lines; ${page.data.value!.total} in all`"
    variant="text"
    @click="shown += 50"
  />
</template>

<style scoped>
.lines {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 11rem 4rem minmax(0, 1fr) 4rem 2.5rem;
  align-items: center;
  gap: 0 0.75rem;
  border-bottom: 1px solid var(--rule);
}

time,
small {
  color: var(--soft);
}

@media (max-width: 43.75em) {
  li {
    grid-template-columns: minmax(0, 1fr) auto auto;
  }

  time {
    grid-column: 1 / -1;
  }

  small:first-of-type {
    display: none;
  }
}
</style>
