<script setup lang="ts">
/* Where the hand lies wider than the player's comfort: told before it is played, with the place where the same notes fit. */
import { computed } from 'vue'
import type { Study } from '../../api/client'
import { place } from '../../document/notes'
import PressButton from '../../shell/PressButton.vue'
import type { LineState } from './useLine'

type Stretch = Study['report']['stretches'][number]
const props = defineProps<{ state: LineState; stretches: Stretch[] }>()
const emit = defineEmits<{ note: [id: number] }>()
/** Those that are told alike, with all their bars. */
const groups = computed(() =>
  [...new Set(props.stretches.map((s) => s.says))].map((says) => ({
    says,
    all: props.stretches.filter((s) => s.says === says),
  })),
)
const move = (all: Stretch[]) => props.state.run(place(all.flatMap((s) => s.there)))
</script>

<template>
  <section class="stretches">
    <h2>
      Wide stretches <small>{{ groups.length === 1 ? 'one' : groups.length }} beyond your reach</small>
    </h2>
    <ul>
      <li v-for="g in groups" :key="g.says">
        <span>{{ g.says }}</span>
        <span class="bars">
          <PressButton v-for="s in g.all.slice(0, 12)" :key="s.notes[0]" @click="emit('note', s.notes[0]!)">
            bar {{ s.bar }}
          </PressButton>
        </span>
        <PressButton v-if="g.all[0]!.there.length" class="there" @click="move(g.all)">play it there</PressButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--text-l);
}

small {
  font: 400 var(--text-s) var(--font-text);
  color: var(--soft);
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.6rem;
  padding-block: 0.2rem;
}

li button {
  min-height: 2.25rem;
  padding: 0 0.5rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  cursor: pointer;
}

.bars {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}
</style>
