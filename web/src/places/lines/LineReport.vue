<script setup lang="ts">
/* What became of each change, and how to mend it; what comes back; what to try. */
import { computed, ref, shallowRef, watch } from 'vue'
import { askLine } from '../../api/kept'
import type { Fixes, Landing } from '../../api/client'
import { around } from '../../document/notes'
import MusicText from '../../music/MusicText.vue'
import StretchList from './StretchList.vue'
import FixList from './FixList.vue'
import type { LineState } from './useLine'
import PressButton from '../../shell/PressButton.vue'

const props = defineProps<{ state: LineState }>()
const emit = defineEmits<{ note: [id: number] }>()
const report = computed(() => props.state.study.value?.report)
const met = computed(() => report.value?.landings.filter((l) => l.landed).length ?? 0)
const chosen = ref<number>()
const fixes = shallowRef<Fixes>()
const busy = ref(false)
async function mend(l: Landing) {
  if (l.note) emit('note', l.note)
  chosen.value = l.at
  fixes.value = undefined
  if (!props.state.line.value) return
  busy.value = true
  try {
    fixes.value = await askLine.fit(around(props.state.line.value, l.at), l.at)
  } catch (e) {
    props.state.refuse(e)
  } finally {
    busy.value = false
  }
}
watch(
  () => props.state.line.value,
  () => (fixes.value = undefined),
)
const signs: Record<string, string> = {
  pushed: 'pi-angle-double-left',
  late: 'pi-clock',
  'wrong note': 'pi-times',
  silent: 'pi-minus',
}
</script>

<template>
  <section v-if="report" class="report">
    <h2>
      Landings <small>{{ met }} of {{ report.landings.length }} changes</small>
    </h2>
    <ol>
      <li v-for="l in report.landings" :key="l.at">
        <PressButton
          :class="[l.when.replace(' ', '-'), { on: chosen === l.at }]"
          :title="l.says"
          :aria-label="`bar ${l.bar}: ${l.says}`"
          @click="mend(l)"
        >
          <i class="pi" :class="signs[l.when] ?? 'pi-check'" />
          {{ l.bar }}<template v-if="l.beat > 1">.{{ l.beat }}</template>
          <b><MusicText :symbol="l.chord" /></b>
          <span v-if="l.degree"><MusicText :symbol="l.degree" /></span>
        </PressButton>
      </li>
    </ol>
    <FixList v-if="fixes" :state="state" :fixes="fixes" :at="chosen ?? 0" />
    <p v-if="report.phrases.length" class="phrases">
      Phrases
      <PressButton v-for="(p, i) in report.phrases" :key="i" :title="p.says" @click="emit('note', p.first)">
        {{ p.name }}<small v-if="p.role">{{ p.role }}</small>
      </PressButton>
    </p>
    <StretchList
      v-if="report.stretches.length"
      :state="state"
      :stretches="report.stretches"
      @note="emit('note', $event)"
    />
    <p v-for="a in report.advice" :key="a" class="advice">{{ a }}</p>
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

ol {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin-top: 0.3rem;
}

ol button,
.phrases button {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 0.35rem;
  min-width: 2.25rem;
  min-height: 2.25rem;
  padding: 0 0.5rem;
  border: 1px solid var(--rule);
  border-radius: var(--round);
  background: none;
  color: inherit;
  font-size: var(--text-s);
  cursor: pointer;
}

.on {
  outline: 2px solid var(--lit-rule);
}

.on-time .pi,
.early .pi {
  color: var(--seventh);
}

.late,
.wrong-note {
  border-color: var(--third) !important;
}

.late .pi,
.wrong-note .pi {
  color: var(--third);
}

.silent {
  color: var(--soft) !important;
  border-style: dashed !important;
}

.phrases {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem;
  margin-top: 0.5rem;
}

.phrases,
.phrases button {
  font: 600 var(--text-m) var(--font-display);
}

.advice {
  margin-top: 0.4rem;
  padding-left: 0.6rem;
  border-left: 3px solid var(--lit-rule);
}
</style>
