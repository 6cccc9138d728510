<script setup lang="ts">
/* Edits that the core proposes: each is heard over the bars where it is, and taken like an edit of the player's own. */
import { quarter } from '../../api/facts'
import Button from 'primevue/button'
import { playing } from '../../api/kept'
import type { Fixes } from '../../api/client'
import { useBand } from '../../band/useBand'
import { mend } from '../../document/notes'
import { barsOf, metreOf } from '../../music/metre'
import type { LineState } from './useLine'

const props = defineProps<{ state: LineState; fixes: Fixes; at: number }>()
const band = useBand()
const nameOf = (i: number) => `fix ${i + 1}: ${props.fixes.fixes[i]?.says.join(', and ') ?? ''}`
function take(i: number) {
  const fix = props.fixes.fixes[i]
  if (fix) props.state.run(mend(fix.gone, fix.put))
}
/* It is heard over the bar before and the bar of it. */
function hear(i: number) {
  const fix = props.fixes.fixes[i]
  const now = props.state.line.value
  if (!fix || !now) return
  if (band.playing && band.audition?.title === nameOf(i)) return band.stop()
  const line = mend(fix.gone, fix.put).apply(now)
  const beat = Math.floor(props.at / quarter)
  const score = props.state.study.value?.score
  const bars = barsOf(score ?? { beats: line.beats, measures: [] })
  const all = metreOf(bars)
  const here = all.at(beat).bar
  void band.hear({
    title: nameOf(i),
    beats: line.beats,
    cues: [],
    load: playing(line),
    lengths: bars.lengths,
    loop: { from: Math.max(0, all.startOf(here - 1)), to: Math.min(all.length, all.startOf(here + 1)) },
  })
}
</script>

<template>
  <div class="fixes">
    <p v-if="!fixes.fixes.length">
      {{ fixes.why === 'it lands already' ? 'It lands already.' : `Nothing to propose: ${fixes.why}.` }}
    </p>
    <ul v-else>
      <li v-for="(f, i) in fixes.fixes" :key="i">
        <span class="words">{{ f.says.join(', and ') }}</span>
        <Button
          :icon="band.playing && band.audition?.title === nameOf(i) ? 'pi pi-stop' : 'pi pi-volume-up'"
          size="small"
          variant="text"
          :aria-label="`hear ${f.says.join(', and ')}`"
          @click="hear(i)"
        />
        <Button label="Take it" size="small" variant="outlined" @click="take(i)" />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.fixes {
  margin-top: 0.5rem;
  padding: 0.4rem 0.6rem;
  background: var(--lit);
  border-radius: var(--round);
}

.fixes li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.6rem;
  min-height: 2.5rem;
}

.words {
  flex: 1;
  white-space: normal;
}
</style>
